import { ascii, startsWith, view } from './bytes'

/**
 * Main brands of stills, which come in the same boxes as films. Sources: ISO/IEC 23008-12, 10.2 (HEIF) and AVIF, 6.3;
 * `crx ` is what cameras write for raw photographs (common practice, no source).
 */
const STILL_BRANDS = new Set('mif1 mif2 msf1 heic heix heim heis avif avis miaf crx'.split(' '))
/**
 * Brands of films and sound. Source: ISO/IEC 14496-12, annex E; the others as registered at the MP4 registration
 * authority.
 */
const TRACK_BRANDS = /^(iso[m2-9]|mp4[12]|mmp4|qt|avc1|hvc1|M4[AV]|3g[ep2][0-9a-z]|mj[2p].)$/

const TS_PACKETS = [188, 192, 204] as const

/**
 * Whether a file begins as a container of pictures in motion or of sound does, by its first 1 KiB or more. Sources:
 * ISO/IEC 14496-12, 4.3 and QTFF (boxes); RIFF and EBU Tech 3306; IETF RFC 8794 (EBML); SMPTE ST 377-1, 6.5 (partition
 * pack); ISO/IEC 13818-1, 2.4.3 (transport packets) and 2.5.3 (packs); AIFF 1.3; CAF 1.0; RFC 3533 (Ogg); RFC 9639
 * (FLAC).
 */
export function isContainerHead(head: Uint8Array): boolean {
  if (head.length < 16) return false
  const box = ascii(head, 4, 4)
  if (box === 'ftyp') return isFilm(head)
  if (['moov', 'mdat', 'wide'].includes(box)) return true
  const [form, kind] = [ascii(head, 0, 4), ascii(head, 8, 4)]
  if (['RIFF', 'RF64', 'BW64'].includes(form)) return kind === 'WAVE' || kind === 'AVI '
  if (form === 'FORM') return kind === 'AIFF' || kind === 'AIFC'
  if (['caff', 'OggS', 'fLaC'].includes(form) || ascii(head, 0, 3) === 'FLV') return true
  return (
    startsWith(head, 0x1a, 0x45, 0xdf, 0xa3) ||
    startsWith(head, 0x06, 0x0e, 0x2b, 0x34, 0x02, 0x05, 0x01, 0x01) ||
    startsWith(head, 0x00, 0x00, 0x01, 0xba) ||
    TS_PACKETS.some((size) => isPacketGrid(head, size))
  )
}

/** The main brand must be none of stills, and one of all must be of films. */
function isFilm(head: Uint8Array): boolean {
  const end = Math.min(head.length, view(head).getUint32(0))
  const brands = [ascii(head, 8, 4).trim()]
  for (let at = 16; at + 4 <= end; at += 4) brands.push(ascii(head, at, 4).trim())
  return !STILL_BRANDS.has(brands[0] ?? '') && brands.some((brand) => TRACK_BRANDS.test(brand))
}

/** Five packets one behind the other begin with the sync byte; those of a disc have four bytes of time before it. */
function isPacketGrid(head: Uint8Array, size: number): boolean {
  const first = size === 192 ? 4 : 0
  if (head.length < first + 4 * size + 1) return false
  return [0, 1, 2, 3, 4].every((packet) => head[first + packet * size] === 0x47)
}

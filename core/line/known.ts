import { dayWithName } from '../units/day'
import type { ByteClass } from '../storage/budget'
import { counted, formatBytes } from '../units/quantity'
import type { Station } from './stations'

/** Bytes of one class that a production has on a volume, by the records alone. */
export interface KnownPlace {
  readonly volumeId: string
  readonly name: string
  /** Where the drive is kept. */
  readonly site: string
  readonly connected: boolean
  readonly byteClass: ByteClass
  readonly sizeBytes: number
}

/** What the records say at one station of a production that was finished before its files were read here. */
export interface KnownAnswer {
  /** For the line of stations. */
  readonly figure: string
  readonly sentence: string
  readonly why: string
}

const bytesOf = (places: readonly KnownPlace[]) => places.reduce((sum, place) => sum + place.sizeBytes, 0)
const listed = (words: readonly string[]) => new Intl.ListFormat('en-GB').format(words)
const namesOf = (places: readonly KnownPlace[]) => listed(places.map((place) => place.name))
/** `Ebb (house) and Neap (aunt’s flat)` */
const withSites = (places: readonly KnownPlace[]) => listed(places.map(({ name, site }) => `${name} (${site})`))

/** How much of a class lies on the fullest of its volumes: the others hold copies of it. */
const once = (places: readonly KnownPlace[]) => Math.max(0, ...places.map((place) => place.sizeBytes))

/**
 * What is known of a finished production, station by station: bytes, places and its day, and no mark of any copy, since
 * nothing of it was read here. `places` in the order in which they are to be named.
 */
export function knownAnswers(
  places: readonly KnownPlace[],
  shootOn: string | null,
): Readonly<Record<Exclude<Station, 'storage'>, KnownAnswer>> {
  const of = (byteClass: ByteClass) => places.filter((place) => place.byteClass === byteClass)
  const [originals, generated, outputs] = [of('originals'), of('generated'), of('outputs')]
  const drives = new Set(places.map((place) => place.volumeId)).size
  const filmed = shootOn === null ? '' : `, filmed on ${dayWithName(shootOn)}`
  const footage = originals.length > 0 ? formatBytes(once(originals)) : undefined
  return {
    shoot: {
      figure: 'no plan kept',
      sentence:
        shootOn === null ? 'It is filmed; no plan is kept.' : `Filmed on ${dayWithName(shootOn)}; no plan is kept.`,
      why: footage === undefined ? 'Nothing is known of its footage.' : `${footage} of footage came of it.`,
    },
    cards: {
      figure: footage ?? 'no footage known',
      sentence: footage === undefined ? 'No footage of it is known.' : `${footage} of footage${filmed}.`,
      why: 'No card of it was scanned here. To have its clips listed, connect a drive and scan the folder as if it were a card.',
    },
    copies: {
      figure: counted(originals.length, 'place'),
      sentence:
        originals.length === 0
          ? 'No copy of its footage is known.'
          : `Its footage lies on ${withSites(originals)}${originals.length === 1 ? ' alone' : ''}.`,
      why: 'The records say where it was put. Whether every byte is still right is known when a drive has been read.',
    },
    proxies: {
      figure: generated.length > 0 ? formatBytes(bytesOf(generated)) : 'none kept',
      sentence:
        generated.length > 0
          ? `${formatBytes(bytesOf(generated))} that can be made again are kept on ${namesOf(generated)}.`
          : 'Nothing is kept that could be made again.',
      why:
        generated.length > 0
          ? 'Proxies, previews and renders of the edit: the first thing to remove where room is needed.'
          : 'Proxies are made from the footage when it is edited again.',
    },
    exports: {
      figure: outputs.length > 0 ? formatBytes(once(outputs)) : 'none known',
      sentence:
        outputs.length > 0
          ? `${formatBytes(once(outputs))} of finished films lie on ${namesOf(outputs)}.`
          : 'No finished film of it is known.',
      why: 'Yendra has not checked them. A new one can be cut from a clip once its footage is scanned.',
    },
    shelf: {
      figure: counted(drives, 'drive'),
      sentence: drives === 0 ? 'Nothing of it is known to be kept.' : `It is put away on ${counted(drives, 'drive')}.`,
      why: 'No bag was written for it: what it is can be told from the folders on its drives alone.',
    },
  }
}

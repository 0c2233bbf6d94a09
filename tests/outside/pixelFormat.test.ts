import { execFileSync } from 'node:child_process'
import { expect, it } from 'vitest'
import { hasAlpha, pixelLayout } from '../../core/media/pixelFormat'

/** A pixel format as Debian's ffprobe describes it. */
interface Described {
  readonly name: string
  readonly nb_components: number
  readonly log2_chroma_w?: number
  readonly log2_chroma_h?: number
  readonly flags: Readonly<Record<'rgb' | 'palette' | 'alpha' | 'hwaccel', number>>
  readonly components?: readonly { readonly bit_depth: number }[]
}

/** Samples of colour to four of brightness, in a line and in the one below. Source: ITU-R BT.601 for the notation. */
function chromaOf({
  flags,
  nb_components: parts,
  log2_chroma_w: wide = 0,
  log2_chroma_h: high = 0,
}: Described): string {
  if (flags.rgb || flags.palette) return 'RGB'
  if (parts < 3) return '4:0:0'
  return `4:${4 >> wide}:${high > 0 ? 0 : 4 >> wide}`
}

it('a pixel format is what ffprobe says of it, by its name alone: chroma, bits, transparency', () => {
  const output = execFileSync('ffprobe', ['-v', 'quiet', '-show_pixel_formats', '-of', 'json'])
  const { pixel_formats: formats } = JSON.parse(output.toString()) as { pixel_formats: Described[] }
  const hardware = formats.filter(({ flags }) => flags.hwaccel).map(({ name }) => name)
  const unknown: string[] = []
  for (const format of formats) {
    const { chroma, bitDepth } = pixelLayout(format.name)
    if (chroma === undefined) unknown.push(format.name)
    else
      expect({ chroma, bitDepth, alpha: hasAlpha(format.name) }, format.name).toEqual({
        chroma: chromaOf(format),
        bitDepth: Math.max(...(format.components ?? []).map((part) => part.bit_depth)),
        alpha: format.flags.alpha === 1,
      })
  }
  // Screens of few colours, bare sensor data, and pictures that stay in another device.
  const few = /^(mono|uyyvyy411|(rgb|bgr)(4|8|4_byte|444|555|565)(le|be)?$|x2(rgb|bgr)|xyz12|bayer_)/
  expect(unknown.filter((name) => !few.test(name))).toEqual(hardware)
})

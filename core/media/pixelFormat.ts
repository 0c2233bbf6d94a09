export interface PixelLayout {
  readonly bitDepth: number | undefined
  /** `4:2:0`, `4:2:2`, `4:4:4`, `4:1:1`, `4:0:0` (grey) or `RGB`. */
  readonly chroma: string | undefined
  /** The format itself says that the range is full. */
  readonly fullRange: boolean
}

/** Whether a pixel format has a channel that says how transparent each pixel is, by the decoder's name of it. */
export const hasAlpha = (pixelFormat: string): boolean =>
  /^(yuva|gbrap|ya\d|rgba|bgra|argb|abgr|ayuv|vuya|pal8)/.test(pixelFormat)

const SEMI_PLANAR: Record<string, readonly [string, number]> = {
  nv12: ['4:2:0', 8],
  nv21: ['4:2:0', 8],
  nv16: ['4:2:2', 8],
  nv20: ['4:2:2', 10],
  nv24: ['4:4:4', 8],
  nv42: ['4:4:4', 8],
  p010: ['4:2:0', 10],
  p016: ['4:2:0', 16],
  p210: ['4:2:2', 10],
  p216: ['4:2:2', 16],
  p410: ['4:4:4', 10],
  p416: ['4:4:4', 16],
  ayuv64: ['4:4:4', 16],
  uyvy422: ['4:2:2', 8],
  yuyv422: ['4:2:2', 8],
  yvyu422: ['4:2:2', 8],
  y210: ['4:2:2', 10],
  pal8: ['RGB', 8],
}

/**
 * Chroma sampling and bits of a sample, read from the decoder's name of a pixel format: `yuv422p10le` is 4:2:2 with
 * 10 bits, `yuvj420p` 4:2:0 with 8 in full range.
 */
export function pixelLayout(pixelFormat: string): PixelLayout {
  const name = pixelFormat.replace(/(le|be)$/, '')
  const known = SEMI_PLANAR[name]
  if (known) return { chroma: known[0], bitDepth: known[1], fullRange: false }
  const planar = /^yuv(a?)(j?)(\d)(\d)(\d)p(\d*)$/.exec(name)
  if (planar)
    return {
      chroma: `${planar[3]}:${planar[4]}:${planar[5]}`,
      bitDepth: Number(planar[6] || 8),
      fullRange: planar[2] === 'j',
    }
  const grey = /^(?:gray|ya)f?(\d*)$/.exec(name)
  if (grey) return { chroma: '4:0:0', bitDepth: Number(grey[1] || 8), fullRange: false }
  const planes = /^gbra?pf?(\d*)$/.exec(name)
  if (planes) return { chroma: 'RGB', bitDepth: Number(planes[1] || 8), fullRange: true }
  const packed = /^(?:0?(?:rgb|bgr)a?0?|argb|abgr)(24|48|64|)$/.exec(name)
  if (packed) return { chroma: 'RGB', bitDepth: packed[1] === '48' || packed[1] === '64' ? 16 : 8, fullRange: true }
  return { chroma: undefined, bitDepth: undefined, fullRange: false }
}

/** Codecs by their published standard; the demuxer's name where there is none. */
const NAMES: Record<string, string> = {
  h264: 'H.264',
  hevc: 'H.265',
  av1: 'AV1',
  vp9: 'VP9',
  mpeg2video: 'H.262',
  mpeg4: 'MPEG-4 part 2',
  dnxhd: 'VC-3',
  mjpeg: 'Motion JPEG',
  dvvideo: 'DV',
  prores: 'RDD 36',
  ffv1: 'FFV1',
  tiff: 'TIFF',
  dng: 'DNG',
  dpx: 'DPX',
  exr: 'OpenEXR',
  jpeg2000: 'JPEG 2000',
  png: 'PNG',
  v210: 'uncompressed 4:2:2',
  aac: 'AAC',
  mp2: 'MPEG layer II',
  mp3: 'MPEG layer III',
  ac3: 'AC-3',
  flac: 'FLAC',
  opus: 'Opus',
  pcm_alaw: 'G.711 A-law',
  pcm_mulaw: 'G.711 µ-law',
}

export function codecName(codec: string): string {
  const known = NAMES[codec]
  if (known !== undefined || !codec.startsWith('pcm_')) return known ?? codec
  const bits = /\d+/.exec(codec)?.[0]
  return bits === undefined ? 'PCM' : `PCM ${bits} bit`
}

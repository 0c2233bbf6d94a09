import { valueOf, type Typed } from './typed'

/** A frame in pixels, as it is seen (after rotation). */
export interface FrameSize {
  readonly widthPx: number
  readonly heightPx: number
}

/** Reads `3840x2160`, `3840×2160`, `3840 * 2160`. */
export function readFrameSize(text: string): Typed<FrameSize> {
  const match = /^\s*(\d{2,5})\s*[x×*]\s*(\d{2,5})\s*$/i.exec(text)
  return match
    ? { value: { widthPx: Number(match[1]), heightPx: Number(match[2]) } }
    : { fault: 'Write it as 3840×2160.' }
}

/** A frame size as typed; `undefined` when it is none. */
export const parseFrameSize = (text: string): FrameSize | undefined => valueOf(readFrameSize(text))

export const frameSizeText = ({ widthPx, heightPx }: FrameSize): string => `${widthPx}×${heightPx}`

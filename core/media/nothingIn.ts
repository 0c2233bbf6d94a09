import type { MediaFacts } from './facts'

/** Why a file that could be read is no clip, in words: it holds nothing, or a head and no frame. */
export function nothingIn({ video, audio, bounds }: MediaFacts): string | undefined {
  if (!video && !audio) return 'it holds neither picture nor sound'
  // Where not all of it could be read, nothing is known of what is missing.
  if (bounds.length > 0 || (video && (video.frames > 0 || video.seconds > 0)) || (audio && audio.seconds > 0))
    return undefined
  return (
    `it holds no ${video ? 'frame' : 'sound'}: the recording ended before the first ` +
    `${video ? 'one' : 'of it'} was written`
  )
}

import type { MediaFacts } from './facts'

/** What every browser plays by itself. */
export const plays = (probe: MediaFacts): boolean =>
  probe.video
    ? probe.video.codec === 'h264' &&
      probe.video.pixelFormat.startsWith('yuv') &&
      probe.video.pixelFormat.includes('420p') &&
      !probe.video.pixelFormat.includes('10') &&
      probe.container.includes('mp4')
    : probe.audio?.codec.startsWith('pcm') === true || probe.audio?.codec === 'aac'

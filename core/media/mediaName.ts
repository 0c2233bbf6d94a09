/** File name endings taken for pictures in motion or sound. Everything else on a card is a sidecar. */
const MEDIA_ENDINGS = new Set('mp4 mov mxf m4v mkv avi mts m2ts webm dv wav bwf aif aiff flac mp3 m4a'.split(' '))

/** Whether a name looks like a clip or a sound recording: `CURL0012.MP4` is one, `CURL0012.XML` is not. */
export function isMediaName(name: string): boolean {
  const dot = name.lastIndexOf('.')
  return dot > 0 && MEDIA_ENDINGS.has(name.slice(dot + 1).toLowerCase())
}

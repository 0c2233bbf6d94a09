import { endingOf } from '../units/filePath'

/** File name endings taken for pictures in motion or sound, all of containers that can be read here. */
const MEDIA_ENDINGS = new Set(
  [
    'mp4 m4v mov qt 3gp 3g2 mj2 mxf mkv webm avi divx dv dif flv asf wmv gxf ivf',
    'ts m2ts mts m2t tod mpg mpeg mpe mod vob m2p',
    'wav wave bwf w64 rf64 aif aiff aifc caf flac mp3 m4a aac ogg oga ogv opus mka wma',
  ].flatMap((line) => line.split(' ')),
)

/** Endings of frames that cameras and scanners write one by one: raw, film scans, and pictures without loss. */
export const FRAME_ENDINGS = new Set('dng tif tiff dpx exr cin jp2 j2c j2k'.split(' '))
/** These are stills as often as frames: many of them, each of the same run, are a clip. */
export const STILL_ENDINGS = new Set('jpg jpeg png bmp webp'.split(' '))

/** Other endings of what lies beside clips on every card: its content is never asked what it is. */
const BESIDE_ENDINGS = new Set(
  [
    'xml xmp json csv txt log pdf htm html md5 sha1 sha256 mhl ini cfg dat idx bdm mpl cpi pls m3u m3u8 edl ale srt',
    'jpe thm gif heic heif hif avif',
  ].flatMap((line) => line.split(' ')),
)

const KNOWN_ENDINGS = [MEDIA_ENDINGS, FRAME_ENDINGS, STILL_ENDINGS, BESIDE_ENDINGS]

/** Whether a name looks like a clip or a sound recording: `CURL0012.MP4` is one, `CURL0012.XML` is not. */
export const isMediaName = (name: string): boolean => MEDIA_ENDINGS.has(endingOf(name))

/** Whether only the content can tell what a file is: its ending is that of no clip, no still and no list. */
export const saysNothing = (name: string): boolean => {
  const ending = endingOf(name)
  return !KNOWN_ENDINGS.some((endings) => endings.has(ending))
}

import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** One generated file: what ffmpeg is told, in order. `from` copies an earlier file of the table. */
export interface MediaFile {
  readonly name: string
  readonly args: readonly string[]
}

const words = (text: string) => text.split(' ').filter((word) => word !== '')
const picture = (options: string, filters = '') => [
  '-f',
  'lavfi',
  '-i',
  `testsrc2=${options}${filters && `,${filters}`}`,
]
/**
 * A tone in each channel, and every half second a click of noise, at another moment in each: what is late or out of
 * order is heard.
 */
const sound = (seconds: number, channels = 1, rate = 48_000) => {
  const heard = Array.from(
    { length: channels },
    (_, at) =>
      `0.1*sin(${200 + at * 100}*2*PI*t)+if(lt(mod(t+${(0.45 - at * 0.05).toFixed(2)}\\,0.5)\\,0.01)\\,random(${at})-0.5\\,0)`,
  )
  return ['-f', 'lavfi', '-i', `aevalsrc=${heard.join('|')}:s=${rate}:d=${seconds}`]
}
const X264 = '-c:v libx264 -preset ultrafast -pix_fmt yuv420p'
const SUBTITLE = Buffer.from('1\n00:00:00,000 --> 00:00:00,900\nTide\n\n').toString('base64')
const SMALL = 's=320x180'
const SD = 's=720x576'

const file = (name: string, inputs: readonly string[], options: string): MediaFile => ({
  name,
  args: [...inputs, ...words(options), name],
})
const from = (name: string, source: string, options: string, before = ''): MediaFile => ({
  name,
  args: [...words(before), '-i', source, ...words(options), name],
})

/** Codec × container × rate × scan × aspect × rotation × range × colour × tracks. All made by Debian's ffmpeg. */
export const MEDIA_FILES: readonly MediaFile[] = [
  // Rates, in the container that counts exactly.
  file('rate-24.mp4', picture(`${SMALL}:r=24:d=2`), X264),
  file('rate-film.mp4', picture(`${SMALL}:r=24000/1001:d=2`), X264),
  file('rate-25.mp4', [...picture(`${SMALL}:r=25:d=2`), ...sound(2)], `${X264} -c:a aac -timecode 10:00:00:00`),
  file('rate-ntsc.mp4', picture(`${SMALL}:r=30000/1001:d=2`), `${X264} -timecode 01:00:00;02`),
  file('rate-30.mp4', picture(`${SMALL}:r=30:d=2`), X264),
  file('rate-50.mov', picture(`${SMALL}:r=50:d=2`), X264),
  file('rate-5994.mov', picture(`${SMALL}:r=60000/1001:d=2`), `${X264} -timecode 23:59:58;30`),
  file('rate-100.mp4', picture(`${SMALL}:r=100:d=1`), X264),
  file(
    'rate-119.mp4',
    picture(`${SMALL}:r=120:d=1`),
    `-vf settb=1/120000,setpts=N*1001,fps=120000/1001 ${X264} -video_track_timescale 120000`,
  ),
  file('rate-12.mp4', picture(`${SMALL}:r=12.5:d=2`), X264),
  // Rates in a container that counts in thousandths.
  file('rate-film.mkv', picture(`${SMALL}:r=24000/1001:d=2`), X264),
  file('rate-ntsc.mkv', picture(`${SMALL}:r=30000/1001:d=2`), X264),
  file('rate-25.mkv', [...picture(`${SMALL}:r=25:d=2`), ...sound(2)], `${X264} -c:a aac`),
  file('rate-5994.mkv', picture(`${SMALL}:r=60000/1001:d=2`), X264),
  // Variable rates.
  file('variable.mp4', picture(`${SMALL}:r=30:d=4`, "select='mod(n,3)'"), `${X264} -fps_mode vfr`),
  file('variable.mkv', picture(`${SMALL}:r=30:d=4`, "select='mod(n,5)'"), `${X264} -fps_mode vfr`),
  file('drifting.mp4', picture(`${SMALL}:r=25:d=4`, "setpts='PTS+0.3/TB*sin(N/20)'"), `${X264} -fps_mode passthrough`),
  // Codecs and their depths.
  file(
    'hevc.mp4',
    picture(`${SMALL}:r=25:d=1`),
    '-c:v libx265 -preset ultrafast -x265-params log-level=error -pix_fmt yuv420p -tag:v hvc1',
  ),
  file(
    'hevc10.mov',
    picture(`${SMALL}:r=25:d=1`),
    '-c:v libx265 -preset ultrafast -x265-params log-level=error -pix_fmt yuv422p10le -tag:v hvc1',
  ),
  file('h264-10.mp4', picture(`${SMALL}:r=25:d=1`), '-c:v libx264 -preset ultrafast -pix_fmt yuv422p10le'),
  file('h264-444.mkv', picture(`${SMALL}:r=25:d=1`), '-c:v libx264 -preset ultrafast -pix_fmt yuv444p'),
  file('intra.mov', picture(`${SMALL}:r=25:d=1`), `${X264} -g 1`),
  file('one-key.mp4', picture(`${SMALL}:r=25:d=6`), `${X264} -g 9999 -sc_threshold 0`),
  file('b-frames.mp4', picture(`${SMALL}:r=25:d=3`), '-c:v libx264 -preset medium -bf 3 -g 25 -pix_fmt yuv420p'),
  file('mezzanine.mov', picture(`${SMALL}:r=25:d=1`), '-c:v prores_ks -profile:v 2 -pix_fmt yuv422p10le'),
  file('mezzanine4444.mov', picture(`${SMALL}:r=25:d=1`), '-c:v prores_ks -profile:v 4 -pix_fmt yuv444p10le'),
  file('vc3.mov', picture('s=1280x720:r=25:d=1'), '-c:v dnxhd -b:v 60M -pix_fmt yuv422p'),
  file(
    'vc3.mxf',
    [...picture('s=1280x720:r=25:d=1'), ...sound(1)],
    '-c:v dnxhd -b:v 60M -pix_fmt yuv422p -c:a pcm_s24le -timecode 09:58:00:00',
  ),
  file('stills.mov', picture(`${SMALL}:r=25:d=1`), '-c:v mjpeg -pix_fmt yuvj422p'),
  file('stills.avi', [...picture(`${SMALL}:r=25:d=1`), ...sound(1)], '-c:v mjpeg -pix_fmt yuvj420p -c:a pcm_s16le'),
  file('part2.avi', picture(`${SMALL}:r=25:d=1`), '-c:v mpeg4 -q:v 4'),
  file('lossless.mkv', picture(`${SMALL}:r=25:d=1`), '-c:v ffv1 -pix_fmt yuv422p10le'),
  file(
    'vp9.webm',
    [...picture(`${SMALL}:r=25:d=1`), ...sound(1)],
    '-c:v libvpx-vp9 -deadline realtime -cpu-used 8 -c:a libopus',
  ),
  file('av1.mp4', picture(`${SMALL}:r=25:d=1`), '-c:v libaom-av1 -usage realtime -cpu-used 8 -pix_fmt yuv420p'),
  file('uncompressed.mov', picture(`${SMALL}:r=25:d=1`), '-c:v v210'),
  file('rgb.avi', picture(`${SMALL}:r=25:d=1`), '-c:v huffyuv -pix_fmt rgb24'),
  // Interlaced and standard definition, with samples that are no squares.
  file(
    'top-first.mp4',
    picture(`${SD}:r=50:d=1`, 'interlace=scan=tff'),
    `${X264} -flags +ilme+ildct -x264-params tff=1 -aspect 4:3`,
  ),
  file(
    'bottom-first.mp4',
    picture('s=720x480:r=60000/1001:d=1', 'interlace=scan=bff'),
    `${X264} -flags +ilme+ildct -x264-params bff=1 -aspect 16:9`,
  ),
  file(
    'fields.mpg',
    [...picture(`${SD}:r=50:d=1`, 'interlace=scan=tff'), ...sound(1)],
    '-c:v mpeg2video -flags +ilme+ildct -top 1 -b:v 5M -aspect 16:9 -c:a mp2',
  ),
  file(
    'fields.mxf',
    picture('s=1920x1080:r=50:d=1', 'interlace=scan=tff'),
    '-c:v mpeg2video -pix_fmt yuv422p -flags +ilme+ildct -top 1 -b:v 50M -maxrate 50M -bufsize 8M -g 12',
  ),
  file(
    'fields.mov',
    picture(`${SD}:r=50:d=1`, 'interlace=scan=tff'),
    '-c:v prores_ks -flags +ilme+ildct -top 1 -pix_fmt yuv422p10le',
  ),
  file(
    'tape.dv',
    [...picture(`${SD}:r=25:d=1`), ...sound(1, 2)],
    '-c:v dvvideo -pix_fmt yuv420p -c:a pcm_s16le -aspect 4:3',
  ),
  file(
    'tape.avi',
    [...picture('s=720x480:r=30000/1001:d=1'), ...sound(1, 2)],
    '-c:v dvvideo -pix_fmt yuv411p -c:a pcm_s16le',
  ),
  file('wide-samples.mkv', picture('s=1440x1080:r=25:d=1', 'setsar=4/3'), X264),
  file('anamorphic.mov', picture('s=640x480:r=24:d=1', 'setsar=2'), X264),
  // Colours and range.
  file(
    'bt709.mp4',
    picture(`${SMALL}:r=25:d=1`),
    `${X264} -colorspace bt709 -color_trc bt709 -color_primaries bt709 -color_range tv`,
  ),
  file(
    'bt601-625.mp4',
    picture(`${SD}:r=25:d=1`),
    `${X264} -colorspace bt470bg -color_trc gamma28 -color_primaries bt470bg`,
  ),
  file(
    'bt601-525.mov',
    picture('s=720x480:r=30000/1001:d=1'),
    `${X264} -colorspace smpte170m -color_trc smpte170m -color_primaries smpte170m`,
  ),
  file(
    'full-range.mp4',
    picture(`${SMALL}:r=25:d=1`),
    '-c:v libx264 -preset ultrafast -pix_fmt yuvj420p -colorspace bt709 -color_trc bt709 -color_primaries bt709',
  ),
  file(
    'pq.mp4',
    picture(`${SMALL}:r=25:d=1`),
    '-c:v libx265 -preset ultrafast -x265-params log-level=error:colorprim=bt2020:transfer=smpte2084:colormatrix=bt2020nc -pix_fmt yuv420p10le -tag:v hvc1',
  ),
  file(
    'hlg.mov',
    picture(`${SMALL}:r=25:d=1`),
    '-c:v libx265 -preset ultrafast -x265-params log-level=error:colorprim=bt2020:transfer=arib-std-b67:colormatrix=bt2020nc -pix_fmt yuv420p10le -tag:v hvc1',
  ),
  // Turned, trimmed, late, short.
  from('turned-90.mp4', 'rate-25.mp4', '-c copy -metadata:s:v rotate=90'),
  from('turned-180.mov', 'rate-50.mov', '-c copy -metadata:s:v rotate=180'),
  from('turned-270.mp4', 'anamorphic.mov', '-c copy -metadata:s:v rotate=270'),
  from('trimmed.mp4', 'b-frames.mp4', '-c copy', '-ss 0.6'),
  from('late.mkv', 'rate-25.mkv', '-c copy -output_ts_offset 10'),
  from('late.ts', 'rate-25.mkv', '-c copy -output_ts_offset 100'),
  file('sound-longer.mp4', [...picture(`${SMALL}:r=25:d=2`), ...sound(3)], `${X264} -c:a aac`),
  file('sound-shorter.mov', [...picture(`${SMALL}:r=25:d=3`), ...sound(1, 2)], `${X264} -c:a pcm_s24le`),
  file(
    'fragments.mp4',
    [...picture(`${SMALL}:r=25:d=4`), ...sound(4)],
    `${X264} -g 25 -c:a aac -movflags frag_keyframe+empty_moov`,
  ),
  file('index-first.mp4', picture(`${SMALL}:r=25:d=1`), `${X264} -movflags +faststart`),
  // More than one track of a kind.
  file(
    'two-pictures.mp4',
    [...picture('s=160x90:r=25:d=1'), ...picture('s=640x360:r=25:d=1')],
    `-map 0:v -map 1:v ${X264} -disposition:v:0 0 -disposition:v:1 default`,
  ),
  file(
    'four-sounds.mov',
    [...picture(`${SMALL}:r=25:d=1`), ...sound(1), ...sound(1)],
    `-map 0:v -map 1:a -map 2:a -map 1:a -map 2:a ${X264} -c:a pcm_s16le -metadata:s:a:0 language=ger -metadata:s:a:1 language=eng`,
  ),
  file('surround.mkv', [...picture(`${SMALL}:r=25:d=1`), ...sound(1, 6)], `${X264} -c:a ac3 -channel_layout 5.1`),
  file(
    'cover.m4a',
    [...sound(2, 2), ...picture('s=128x128:r=1:d=1')],
    '-map 0:a -map 1:v -c:a aac -c:v mjpeg -frames:v 1 -disposition:v attached_pic',
  ),
  file(
    'subtitled.mkv',
    [...picture(`${SMALL}:r=25:d=1`), '-f', 'srt', '-i', `data:text/plain;base64,${SUBTITLE}`],
    `${X264} -map 0:v -map 1:s -c:s srt`,
  ),
  file('dated.mp4', picture(`${SMALL}:r=25:d=1`), `${X264} -metadata creation_time=2026-06-04T11:12:13Z`),
  // Sound alone.
  file(
    'recorder.wav',
    sound(2, 2),
    '-c:a pcm_s24le -write_bext 1 -metadata description=Tide -metadata time_reference=172800000 -metadata origination_date=2026-06-04 -metadata origination_time=09:30:00',
  ),
  file('voice.flac', sound(2, 1, 44_100), '-c:a flac -sample_fmt s16'),
  file('music.m4a', sound(2, 2, 44_100), '-c:a aac'),
]

/** The folder with every file of the table, made once a run whoever asks first. */
export function mediaFolder(): string {
  // Another table is another folder, so that nothing stale is ever compared.
  const print = createHash('sha256').update(JSON.stringify(MEDIA_FILES)).digest('hex').slice(0, 12)
  const folder = join(process.env.YENDRA_TEST_DIR ?? tmpdir(), `yendra-media-${print}`)
  const done = join(folder, 'done')
  mkdirSync(folder, { recursive: true })
  try {
    mkdirSync(join(folder, 'making'))
  } catch {
    const until = Date.now() + 240_000
    while (!existsSync(done)) {
      if (Date.now() > until) throw new Error(`${folder} was begun and never finished. Remove it.`)
      Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 200)
    }
    return folder
  }
  for (const { args } of MEDIA_FILES) execFileSync('ffmpeg', ['-v', 'error', '-y', ...args], { cwd: folder })
  writeFileSync(done, '')
  return folder
}

export const mediaPath = (name: string): Buffer => Buffer.from(join(mediaFolder(), name))

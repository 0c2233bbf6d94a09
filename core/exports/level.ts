/** Level 1b as High and higher profiles code it: `level_idc` 9, above 1 and below 1.1. */
const LEVEL_1B = 9

/**
 * Level limits of H.264. Source: ITU-T H.264 (08/2021) Annex A, table A-1, rows written from memory, compared with a
 * list typed from the Recommendation and with a reference encoder in the tests; bit rates in kb/s × 1000 before the
 * profile's factor.
 */
const LEVELS = [
  { level: 10, macroblocksPerSecond: 1_485, frameMacroblocks: 99, kilobits: 64 },
  { level: LEVEL_1B, macroblocksPerSecond: 1_485, frameMacroblocks: 99, kilobits: 128 },
  { level: 11, macroblocksPerSecond: 3_000, frameMacroblocks: 396, kilobits: 192 },
  { level: 12, macroblocksPerSecond: 6_000, frameMacroblocks: 396, kilobits: 384 },
  { level: 13, macroblocksPerSecond: 11_880, frameMacroblocks: 396, kilobits: 768 },
  { level: 20, macroblocksPerSecond: 11_880, frameMacroblocks: 396, kilobits: 2_000 },
  { level: 21, macroblocksPerSecond: 19_800, frameMacroblocks: 792, kilobits: 4_000 },
  { level: 22, macroblocksPerSecond: 20_250, frameMacroblocks: 1_620, kilobits: 4_000 },
  { level: 30, macroblocksPerSecond: 40_500, frameMacroblocks: 1_620, kilobits: 10_000 },
  { level: 31, macroblocksPerSecond: 108_000, frameMacroblocks: 3_600, kilobits: 14_000 },
  { level: 32, macroblocksPerSecond: 216_000, frameMacroblocks: 5_120, kilobits: 20_000 },
  { level: 40, macroblocksPerSecond: 245_760, frameMacroblocks: 8_192, kilobits: 20_000 },
  { level: 41, macroblocksPerSecond: 245_760, frameMacroblocks: 8_192, kilobits: 50_000 },
  { level: 42, macroblocksPerSecond: 522_240, frameMacroblocks: 8_704, kilobits: 50_000 },
  { level: 50, macroblocksPerSecond: 589_824, frameMacroblocks: 22_080, kilobits: 135_000 },
  { level: 51, macroblocksPerSecond: 983_040, frameMacroblocks: 36_864, kilobits: 240_000 },
  { level: 52, macroblocksPerSecond: 2_073_600, frameMacroblocks: 36_864, kilobits: 240_000 },
  { level: 60, macroblocksPerSecond: 4_177_920, frameMacroblocks: 139_264, kilobits: 240_000 },
  { level: 61, macroblocksPerSecond: 8_355_840, frameMacroblocks: 139_264, kilobits: 480_000 },
  { level: 62, macroblocksPerSecond: 16_711_680, frameMacroblocks: 139_264, kilobits: 800_000 },
] as const

/** Bit rate factor of the High profile against Baseline and Main (table A-2). */
const HIGH_PROFILE_FACTOR = 1.25

export interface CodedStream {
  readonly widthPx: number
  readonly heightPx: number
  readonly framesPerSecond: number
  readonly bitsPerSecond: number
}

/** 16×16 blocks of one frame: 1920×1080 is 8 160. */
export const macroblocks = (widthPx: number, heightPx: number): number =>
  Math.ceil(widthPx / 16) * Math.ceil(heightPx / 16)

/**
 * The lowest level (times ten) of the High profile that allows a stream; `undefined` above 6.2. 1920×1080 at 30 fits
 * 40, at 60 42; 3840×2160 at 30 fits 51. Neither side may be longer than √(8 × frame size) macroblocks.
 */
export const neededLevel = (stream: CodedStream): number | undefined => LEVELS.find((one) => allows(one, stream))?.level

/** Whether a declared level allows a stream; `undefined` for a number that is no level. */
export function levelAllows(level: number, stream: CodedStream): boolean | undefined {
  const row = LEVELS.find((one) => one.level === level)
  return row && allows(row, stream)
}

function allows(
  limit: (typeof LEVELS)[number],
  { widthPx, heightPx, framesPerSecond, bitsPerSecond }: CodedStream,
): boolean {
  const blocks = macroblocks(widthPx, heightPx)
  const longest = Math.ceil(Math.max(widthPx, heightPx) / 16)
  return (
    blocks <= limit.frameMacroblocks &&
    blocks * framesPerSecond <= limit.macroblocksPerSecond &&
    longest * longest <= 8 * limit.frameMacroblocks &&
    bitsPerSecond <= limit.kilobits * 1000 * HIGH_PROFILE_FACTOR
  )
}

/** `40` as people write it: `4`; `42` is `4.2`, `9` is `1b`. */
export const levelText = (level: number): string => (level === LEVEL_1B ? '1b' : String(level / 10))

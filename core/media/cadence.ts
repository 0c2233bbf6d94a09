import { frameRate, type FrameRate } from '../units/frameRate'
import { middleValue } from '../units/middle'

/** Whether frames come at one rate, told from their time stamps. */
export interface Cadence {
  readonly kind: 'constant' | 'variable' | 'not measured'
  /** Frames a second over what was measured. */
  readonly average: number
  /** Share of frames that do not follow the one before by one period, 0–1. */
  readonly offGrid: number
  readonly measuredFrames: number
  /** What putting a variable rate on its nominal grid does to the frames that were measured. */
  readonly grid?: GridChange
  /** Film on a clock of fields: each frame is shown for two or three of them by a flag, and none is stored twice. */
  readonly pulldown?: true
  /** Where no frame came for long, in the order of the clip; left out where there is none. */
  readonly holes?: readonly Hole[]
}

/** A stretch without a frame: from where the frame before it should have ended, in seconds from the first frame. */
export interface Hole {
  readonly atSeconds: number
  readonly seconds: number
}

/** Frames that are shown twice, and frames that are left out, to come to one rate. */
export interface GridChange {
  readonly doubled: number
  readonly dropped: number
}

export interface MeasuredRate {
  readonly rate: FrameRate
  readonly cadence: Cadence
}

const NOMINAL = [12, 15, 24, 25, 30, 48, 50, 60, 72, 90, 96, 100, 120, 144, 180, 192, 200, 240] as const

/** Rates that cameras, screens and timelines know. Common practice, no source. */
export const STANDARD_RATES: readonly FrameRate[] = NOMINAL.flatMap((whole) =>
  whole % 25 === 0 ? [frameRate(whole)] : [frameRate(whole), frameRate(whole * 1000, 1001)],
)

const valueOf = ({ num, den }: FrameRate) => num / den
const distance = (a: number, b: number) => Math.abs(Math.log(a / b))

/** The rate that people know which lies nearest to so many frames a second: 26.163 is nearest to 25. */
export const nearestStandard = (framesPerSecond: number): FrameRate =>
  STANDARD_RATES.reduce((best, rate) =>
    distance(valueOf(rate), framesPerSecond) < distance(valueOf(best), framesPerSecond) ? rate : best,
  )

/** Containers round: 2997/100 and 23976/1000 are written for 30000/1001 and 24000/1001. */
export function unrounded(rate: FrameRate): FrameRate {
  const near = nearestStandard(valueOf(rate))
  return Math.abs(valueOf(near) / valueOf(rate) - 1) < 5e-5 ? near : rate
}

/** Up to this share of a period a step is the noise of a clock, not another rate. */
const JITTER = 0.02

/**
 * A frame that comes so many usual steps late, and by so much, is no slow rate any more. Common practice, no source.
 */
const HOLE_STEPS = 4
const HOLE_SECONDS = 0.25
/** More of them are how it records, as a screen does that stands still. Common practice, no source. */
const MOST_HOLES = 20

function holesOf(runs: readonly (readonly number[])[], usual: number, ticksPerSecond: number): Hole[] {
  const first = runs[0]?.[0] ?? 0
  const holes = runs.flatMap((run) =>
    run.slice(1).flatMap((time, at): Hole[] => {
      const before = run[at] ?? 0
      const late = time - before - usual
      return late >= (HOLE_STEPS - 1) * usual && late >= HOLE_SECONDS * ticksPerSecond
        ? [{ atSeconds: (before + usual - first) / ticksPerSecond, seconds: late / ticksPerSecond }]
        : []
    }),
  )
  return holes.length > MOST_HOLES ? [] : holes
}

/** How far the frames of each run stray from a period of so many ticks. */
function strayed(runs: readonly (readonly number[])[], period: number): { off: number; drift: number } {
  const tolerance = Math.max(1, period * JITTER) + 1e-6
  let off = 0
  let drift = 0
  for (const run of runs) {
    for (let at = 1; at < run.length; at += 1)
      if (Math.abs((run[at] ?? 0) - (run[at - 1] ?? 0) - period) > tolerance) off += 1
    const span = (run.at(-1) ?? 0) - (run[0] ?? 0)
    if (run.length > 1) drift = Math.max(drift, Math.abs(span - (run.length - 1) * period))
  }
  return { off, drift }
}

/** Clocks of fields that film is laid on. */
const FIELD_RATES: readonly FrameRate[] = [frameRate(60_000, 1001), frameRate(60)]
/** So many frames show a pattern. Common practice, no source. */
const PATTERN_FRAMES = 8

/**
 * The rate of film whose frames are shown for two and three fields in turn, five fields for two frames. Source: ISO/IEC
 * 13818-2, 6.3.10, `repeat_first_field`; that film comes to 60 fields so is common practice, no source.
 */
function pulldownRate(steps: readonly number[], ticksPerSecond: number): FrameRate | undefined {
  if (steps.length < PATTERN_FRAMES) return undefined
  const ticks = steps.reduce((sum, step) => sum + step, 0)
  const fits = FIELD_RATES.map((rate) => {
    const field = ticksPerSecond / valueOf(rate)
    const slack = Math.max(1, field * JITTER) + 1e-6
    const shownFor = (fields: number) => steps.filter((step) => Math.abs(step - fields * field) <= slack).length
    const [two, three] = [shownFor(2), shownFor(3)]
    const inTurn = two + three === steps.length && Math.abs(two - three) <= Math.max(2, steps.length / 50)
    return { rate, inTurn, off: Math.abs(ticks - (2 * two + 3 * three) * field) }
  })
  const found = fits.filter(({ inTurn }) => inTurn).sort((a, b) => a.off - b.off)[0]
  return found && frameRate(found.rate.num * 2, found.rate.den * 5)
}

/**
 * The nominal rate of frames that are presented at these times, in ticks and ascending within each run, and whether it
 * is constant. `stated` are the rates that the container names; they decide where two fit alike.
 *
 * 100 frames each 1001 ticks of 30 000 apart are constant at 30000/1001; frames 33 and 67 ms apart in turn are
 * variable, nominally 30.
 */
export function measureRate(
  runs: readonly (readonly number[])[],
  ticksPerSecond: number,
  stated: readonly FrameRate[],
): MeasuredRate {
  const named = stated.map(unrounded)
  const steps = runs.flatMap((run) => run.slice(1).map((time, at) => time - (run[at] ?? 0)))
  const usual = middleValue(steps) ?? 0
  const ticks = steps.reduce((sum, step) => sum + step, 0)
  if (steps.length === 0 || usual <= 0 || ticks <= 0) {
    const rate = named[0] ?? frameRate(1)
    const average = valueOf(rate)
    return { rate, cadence: { kind: 'not measured', average, offGrid: 0, measuredFrames: steps.length } }
  }
  const average = (steps.length * ticksPerSecond) / ticks
  const measuredFrames = steps.length + runs.filter((run) => run.length > 0).length
  const exact = Number.isInteger(usual) && Number.isInteger(ticksPerSecond) ? [frameRate(ticksPerSecond, usual)] : []
  const fitting = [...named, ...STANDARD_RATES, ...exact]
    .map((rate, order) => {
      const period = ticksPerSecond / valueOf(rate)
      return { rate, order, period, ...strayed(runs, period) }
    })
    .filter(({ off, drift, period }) => off === 0 && drift <= Math.max(1, period / 2))
    // Within a tick, the clock itself cannot tell two rates apart: the one that the file names comes first.
    .sort((a, b) => Math.max(1, a.drift) - Math.max(1, b.drift) || a.order - b.order)
  const found = fitting[0]
  if (found) return { rate: found.rate, cadence: { kind: 'constant', average, offGrid: 0, measuredFrames } }
  const film = pulldownRate(steps, ticksPerSecond)
  if (film) return { rate: film, cadence: { kind: 'constant', average, offGrid: 0, measuredFrames, pulldown: true } }
  const rate = nearestStandard(ticksPerSecond / usual)
  const { off } = strayed(runs, ticksPerSecond / valueOf(rate))
  const grid = onGrid(runs, ticksPerSecond / valueOf(rate))
  const holes = holesOf(runs, usual, ticksPerSecond)
  const variable = { kind: 'variable', average, offGrid: off / steps.length, measuredFrames, grid } as const
  return { rate, cadence: { ...variable, ...(holes.length > 0 && { holes }) } }
}

/**
 * Each frame goes to the nearest place of the grid: a place without one repeats the frame before, of two for one place
 * the later stays.
 */
function onGrid(runs: readonly (readonly number[])[], period: number): GridChange {
  let [doubled, dropped] = [0, 0]
  for (const run of runs) {
    const first = run[0] ?? 0
    for (let at = 1; at < run.length; at += 1) {
      const place = (time: number | undefined) => Math.round(((time ?? first) - first) / period)
      const step = place(run[at]) - place(run[at - 1])
      if (step === 0) dropped += 1
      else doubled += step - 1
    }
  }
  return { doubled, dropped }
}

/**
 * How many frames are doubled or dropped when a picture is put on a rate: as measured, else by the difference of the
 * rates.
 */
export function gridChange(
  { cadence, rate: own, frames, seconds }: { cadence: Cadence; rate: FrameRate; frames: number; seconds: number },
  rate: FrameRate,
): GridChange {
  if (cadence.grid && valueOf(own) === valueOf(rate)) {
    // Of a long film only parts were measured.
    const share = cadence.measuredFrames > 0 ? Math.max(1, frames / cadence.measuredFrames) : 1
    return { doubled: Math.round(cadence.grid.doubled * share), dropped: Math.round(cadence.grid.dropped * share) }
  }
  const more = Math.round(seconds * valueOf(rate)) - frames
  return { doubled: Math.max(0, more), dropped: Math.max(0, -more) }
}

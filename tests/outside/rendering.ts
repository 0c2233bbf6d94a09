import { execFileSync } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { checkDelivery, type MeasuredDelivery } from '../../core/exports/check'
import type { Destination } from '../../core/exports/destination'
import { deliveryPlan, USUAL_CHOICE, type DeliveryChoice, type DeliveryPlan } from '../../core/exports/plan'
import { reframe, shownFrame } from '../../core/exports/reframe'
import { measureDeliverable } from '../../server/engine/code/measureDeliverable'
import { probeFile } from '../../server/engine/probe/probe'
import { renderDeliverable } from '../../server/engine/code/renderDeliverable'
import { loweredDbOf } from '../../server/engine/code/soundMix'
import { TaskControl } from '../../server/jobs/control'

export const folder = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-deliver-'))

/** Small ones, so that many can be rendered. */
export const SQUARE: Destination = {
  id: 'square',
  name: 'Square',
  widthPx: 240,
  heightPx: 240,
  bitsPerPixelFrame: 0.5,
  audioBitsPerSecond: 128_000,
  longestSeconds: 20,
}
export const WIDE: Destination = { ...SQUARE, id: 'wide', name: 'Wide', widthPx: 320, heightPx: 180 }

export function ffmpeg(...args: string[]): void {
  execFileSync('ffmpeg', ['-v', 'error', '-y', ...args], { cwd: folder })
}

export const at = (name: string) => Buffer.from(join(folder, name))

let count = 0

/** Renders the middle of a master, and measures what came out. */
export async function render(input: Buffer, destination: Destination, choice: Partial<DeliveryChoice> = {}, zoom = 1) {
  const master = await probeFile(input)
  if (!master.video) throw new Error('no picture')
  const shown = shownFrame(master.video)
  const { window } = reframe(shown, destination, zoom, { x: shown.widthPx / 2, y: shown.heightPx / 2 })
  const plan = deliveryPlan(master, destination, window, { ...USUAL_CHOICE, ...choice })
  if (!plan) throw new Error('no plan')
  const name = `render-${(count += 1)}.mp4`
  const output = join(folder, name)
  const loweredDb = plan.sound ? await loweredDbOf(input, plan.sound) : 0
  await renderDeliverable(
    { input, output, control: new TaskControl(), onFrames: () => undefined },
    plan,
    loweredDb,
    master,
  )
  return { plan, name, loweredDb, ...(await checked(name, plan, {}, { master: input, loweredDb })) }
}

/** What came out against its plan; its sound where the master is at hand. */
export async function checked(
  name: string,
  plan: DeliveryPlan,
  more: Partial<MeasuredDelivery> = {},
  { master, loweredDb }: { master?: Buffer; loweredDb: number } = { loweredDb: 0 },
) {
  const file = await probeFile(at(name))
  if (!file.video) throw new Error('no picture')
  const order = master ? plan : { ...plan, sound: undefined }
  const made = { ...file, video: file.video }
  const measured = await measureDeliverable({
    master: master ?? at(name),
    file: at(name),
    plan: order,
    made,
    loweredDb,
  })
  const checks = checkDelivery(plan, file, { ...measured, detailBitsPerSecond: undefined, ...more })
  return { file, checks, failed: checks.filter((check) => !check.pass).map((check) => `${check.name}: ${check.found}`) }
}

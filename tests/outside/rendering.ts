import { execFileSync } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { checkDelivery, isLookedAt, type MeasuredDelivery } from '../../core/exports/check'
import type { Destination } from '../../core/exports/destination'
import { deliveryPlan, USUAL_CHOICE, type DeliveryChoice, type DeliveryPlan } from '../../core/exports/plan'
import { reframe, shownFrame } from '../../core/exports/reframe'
import { measureFields } from '../../server/engine/measureFields'
import { measureBlack } from '../../server/engine/picture'
import { probeFile } from '../../server/engine/probe'
import { renderDeliverable } from '../../server/engine/renderDeliverable'
import { decodeWhole } from '../../server/engine/transcode'
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
  await renderDeliverable({ input, output, control: new TaskControl(), onFrames: () => undefined }, plan)
  return { plan, name, ...(await checked(name, plan)) }
}

async function measure(name: string, plan: DeliveryPlan): Promise<MeasuredDelivery> {
  const { video } = await probeFile(at(name))
  if (!video) throw new Error('no picture')
  const black = await measureBlack(at(name), video)
  const decoded = await decodeWhole(at(name), video)
  const fields = isLookedAt(plan) ? await measureFields(at(name), video) : undefined
  return { ...black, fields, decoded, detailBitsPerSecond: undefined }
}

export async function checked(name: string, plan: DeliveryPlan, more: Partial<MeasuredDelivery> = {}) {
  const file = await probeFile(at(name))
  const checks = checkDelivery(plan, file, { ...(await measure(name, plan)), ...more })
  return { file, checks, failed: checks.filter((check) => !check.pass).map((check) => `${check.name}: ${check.found}`) }
}

import type { TaskInput } from '../../../contract/taskKinds'
import { clipsToSample, measuredShare, sampleParts } from '../../../core/proxies/estimate'
import { mostProxyBytes, proxyBytes } from '../../../core/proxies/recipe'
import { counted, formatBytes } from '../../../core/units/quantity'
import { openClips, putProxySample } from '../../db/queries/proxies'
import { makeProxy } from '../../engine/code/makeProxy'
import { probeFile } from '../../engine/probe/probe'
import { inTemporaryFolder } from '../../engine/tool/temporary'
import { CannotWork } from '../../media/cannotWork'
import { originalOf } from '../../media/originals'
import type { Job, Work, WorkEnd } from '../work'

const MOST_CLIPS = 6

/** Codes a few seconds of some clips, so that what a batch of proxies will have is measured and not guessed. */
export const estimate: Job<'estimate'> = { kind: 'estimate', run: runEstimate }

async function runEstimate({ db, control, progress }: Work, { productionId }: TaskInput<'estimate'>): Promise<WorkEnd> {
  const open = await openClips(db, productionId)
  const candidates = open.map(({ id, loadId, framePx, rate, seconds }) => ({
    id,
    kind: `${loadId} ${framePx} ${rate}`,
    seconds,
  }))
  const chosen = clipsToSample(candidates, MOST_CLIPS)
  if (chosen.length === 0) throw new CannotWork('There is no clip without a proxy to measure.')
  const measured: { bytes: number; mostBytes: number }[] = []
  for (const [done, { id }] of chosen.entries()) {
    await control.gate()
    progress.set({ done, total: chosen.length, unit: 'files' })
    const { probe, video, path } = await originalOf(db, id)
    const bits = await inTemporaryFolder('sample', (folder) => pictureBits(path, probe, folder, control))
    const bytes = Math.min(mostProxyBytes(probe), proxyBytes(probe, bits * video.seconds))
    measured.push({ bytes, mostBytes: mostProxyBytes(probe) })
    await putProxySample(db, { mediaFileId: id, bytes })
  }
  progress.set({ done: chosen.length, total: chosen.length, unit: 'files' })
  const share = measuredShare(measured)?.share ?? 1
  const most = open.reduce((sum, { proxyBytes }) => sum + proxyBytes, 0)
  return {
    sentence:
      `${counted(open.length, 'proxy', 'proxies')} will have about ${formatBytes(most * share)}, ` +
      `measured on a few seconds of ${counted(chosen.length, 'clip')}.`,
    troubles: [],
  }
}

/** Picture bits a second over the sampled parts of a clip. */
async function pictureBits(
  input: Buffer,
  probe: Parameters<typeof makeProxy>[1],
  folder: string,
  control: Work['control'],
): Promise<number> {
  let bits = 0
  let seconds = 0
  for (const [at, part] of sampleParts(probe.video?.seconds ?? 0).entries()) {
    const output = `${folder}/${at}.mp4`
    await makeProxy({ input, output, control, onFrames: () => undefined }, probe, part)
    const { video } = await probeFile(Buffer.from(output), control)
    bits += (video?.bitsPerSecond ?? 0) * (video?.seconds ?? 0)
    seconds += video?.seconds ?? 0
  }
  return seconds > 0 ? bits / seconds : 0
}

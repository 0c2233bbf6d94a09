import type { TaskProgress } from '../../../../contract/tasks'
import type { ProgressWriter } from '../../progress'

interface TalliedVolume {
  readonly id: string
  readonly name: string
  readonly wantedBytes: number
}

/** Counts bytes for the progress bar: each volume writes every byte once and reads it back once. */
export class Tally {
  readonly #volumes: Map<
    string,
    { volumeId: string; name: string; written: number; proved: number; total: number; failed?: string }
  >

  constructor(
    readonly progress: ProgressWriter,
    volumes: readonly TalliedVolume[],
  ) {
    this.#volumes = new Map(
      volumes.map(({ id, name, wantedBytes }) => [
        id,
        { volumeId: id, name, written: 0, proved: 0, total: wantedBytes },
      ]),
    )
    this.#tell()
  }

  add(id: string, stage: 'written' | 'proved', bytes: number): void {
    const volume = this.#volumes.get(id)
    if (volume) volume[stage] += bytes
    this.#tell()
  }

  fail(id: string, sentence: string): void {
    const volume = this.#volumes.get(id)
    if (volume) volume.failed = sentence
    this.#tell()
  }

  failed(id: string): boolean {
    return this.#volumes.get(id)?.failed !== undefined
  }

  #tell(): void {
    const volumes = [...this.#volumes.values()].map((volume) => ({ ...volume }))
    const live = volumes.filter((volume) => volume.failed === undefined)
    const progress: Omit<TaskProgress, 'perSecond'> = {
      unit: 'bytes',
      volumes,
      done: live.reduce((sum, volume) => sum + volume.written + volume.proved, 0),
      total: live.reduce((sum, volume) => sum + volume.total * 2, 0),
    }
    this.progress.set(progress)
  }
}

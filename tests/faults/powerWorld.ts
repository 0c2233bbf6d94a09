import type { CopyRecord } from '../../core/copies/record'
import { copyMemory } from '../../server/engine/copy/copy'
import { RunningHash } from '../../server/engine/copy/hash'
import type { Power, PowerDisk } from './powerDisk'

export const path = (text: string) => Buffer.from(text, 'latin1')
export const gate = () => Promise.resolve()
export const hashOf = (content: Buffer) => {
  const hash = new RunningHash()
  hash.update(content)
  return hash.digest()
}

export type Card = Record<string, Buffer>

/** What a run wrote into its database: a transaction is there or not. */
export interface Ledger {
  readonly proofs: Map<string, string>
}

export interface World {
  readonly power: Power
  readonly content: Card
  readonly card: PowerDisk
  readonly drives: readonly PowerDisk[]
  readonly ledger: Ledger
  attempt: number
}

/**
 * One thing that is done to the drives; `holds` says what must be true after any cut, `done` what must be true at the
 * end.
 */
export interface Story {
  readonly card?: Card
  readonly prepare: (world: World) => void
  readonly run: (world: World) => Promise<void>
  readonly holds: (world: World) => void
  readonly done: (world: World) => void
  /** How many files an undisturbed run proves: a story in which nothing is proved sees no false proof. */
  readonly proves?: number
}

/** The database is a step too: cut before it, nothing was written; cut after it, all of it. */
export function commit(world: World, write: () => void): void {
  world.power.step('commit')
  write()
}

export const partsOf = (world: World) => path(`.yendra/parts/${world.attempt}`)

/** Runs follow each other, and share their memory. */
export const memory = copyMemory(2)

export function keep(world: World, records: readonly CopyRecord[], nameOf: (id: number) => string): Promise<void> {
  commit(world, () => {
    for (const record of records)
      if (record.kind === 'proved')
        world.ledger.proofs.set(`${record.destinationId} ${nameOf(record.fileId)}`, record.hash)
  })
  return Promise.resolve()
}

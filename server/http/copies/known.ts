import { markOf } from '../../../core/copies/mark'
import * as cards from '../../db/queries/cards'
import { volumes } from '../../db/queries/volumes'
import { loadStates, type LoadState } from '../../facts/loadStates'
import type { Context } from '../context'
import { notFound } from '../problem'

/** The load of that id; 404 where there is none. */
export async function loadOf({ db }: Context, id: string): Promise<cards.LoadRow> {
  const load = await cards.load(db, id)
  if (!load) throw notFound('That load')
  return load
}

/** The names of volumes as a sentence says them; 404 where one is not known. */
export async function namesOf({ db, host }: Context, volumeIds: readonly string[]): Promise<string> {
  const known = await volumes(db, host)
  const names = volumeIds.map((id) => known.find((row) => row.id === id)?.name)
  if (names.includes(undefined)) throw notFound('One of these volumes')
  return names.join(' and ')
}

/** What is true of loads; whatever comes near a yes is scanned first, since a yes rests on what is there now. */
export async function freshStates({ db, host, looks }: Context, loads: readonly cards.LoadRow[]): Promise<LoadState[]> {
  const states = await loadStates(db, loads, { host, now: Date.now(), looked: true })
  const near = states.filter(
    (state) => !state.formattedAt && state.copies.some((copy) => markOf(copy, state.rule) >= 2),
  )
  if (near.length === 0) return states
  const looked = await looks.ask(near.map((state) => state.load.id))
  return loadStates(db, loads, { host, now: Date.now(), looked })
}

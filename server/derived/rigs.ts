import { likelyRig, rigOf, rigSentence } from '../../core/cards/load/rig'
import type { Db } from '../db/connection'
import { lensCards, proposeRig, putRig, rigCards } from '../db/queries/rigs'

/**
 * Compares the lenses of each rig of a production anew, looks for cards that seem to be one, and keeps what was found.
 */
export async function renewRigs(db: Db, productionId: string): Promise<void> {
  const cards = await rigCards(db, productionId)
  await proposeRig(db, productionId, await likelyCards(db, cards))
  for (const rigId of new Set(cards.flatMap((card) => card.rigId ?? []))) {
    const own = cards.filter((card) => card.rigId === rigId)
    const lenses = await lensCards(db, own)
    const rig = rigOf(lenses)
    await putRig(db, rigId, {
      sentence: rigSentence(own[0]?.name ?? '', lenses, rig),
      odd: lenses.map(({ loadId }) => ({ loadId, oddities: rig.odd.get(loadId) ?? [] })),
      lenses: rig.takes.flatMap((take) => {
        const [head, ...others] = take.flatMap((clip) => clip ?? [])
        return head ? others.map(({ id }) => ({ id, of: head.id })) : []
      }),
    })
  }
}

/** A card that filmed more takes than this is tied by hand, and so are those of a production with more cards. */
const MOST_TAKES = 200
const MOST_CARDS = 24

/** Which of the cards that are in no rig seem to be one. */
async function likelyCards(db: Db, cards: Awaited<ReturnType<typeof rigCards>>): Promise<readonly string[]> {
  const loose = cards.filter((card) => card.rigId === null && !card.noRig && card.lookDone && card.clips <= MOST_TAKES)
  if (loose.length < 3 || loose.length > MOST_CARDS) return []
  return (likelyRig(await lensCards(db, loose)) ?? []).map((card) => card.loadId)
}

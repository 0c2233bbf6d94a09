import { likelyRig, rigOf, rigSentence } from '../../core/cards/rig'
import type { RigsView } from '../../contract/rigs'
import type { Db } from '../db/connection'
import { lensCards, putRig, rigCards } from '../db/queries/rigs'

/** Compares the lenses of each rig of a production anew, and keeps what was found. */
export async function renewRigs(db: Db, productionId: string): Promise<void> {
  const cards = await rigCards(db, productionId)
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

/** A card that filmed more takes than this is tied by hand. */
const MOST_TAKES = 200

/** The rigs of a production, and the cards that seem to be one. */
export async function rigsView(db: Db, productionId: string): Promise<RigsView> {
  const cards = await rigCards(db, productionId)
  const loose = cards.filter((card) => card.rigId === null && !card.noRig && card.lookDone)
  const lenses = loose.length < 3 ? [] : await lensCards(db, loose)
  const likely = likelyRig(lenses.filter((card) => card.clips.length <= MOST_TAKES))
  const ids = new Set(cards.flatMap((card) => card.rigId ?? []))
  const bare = ({ loadId, label }: { loadId: string; label: string }) => ({ loadId, label })
  return {
    rigs: [...ids].map((id) => {
      const own = cards.filter((card) => card.rigId === id)
      return {
        id,
        name: own[0]?.name ?? '',
        sentence: own[0]?.sentence ?? '',
        cards: own.map((card) => ({ ...bare(card), isOdd: card.rigOdd !== null })),
      }
    }),
    proposed: likely
      ? [...likely].sort((a, b) => a.label.localeCompare(b.label, 'en', { numeric: true })).map(bare)
      : [],
    loose: cards.filter((card) => card.rigId === null && card.lookDone).map(bare),
  }
}

import type { RigsView } from '../../contract/rigs'
import type { Db } from '../db/connection'
import { rigCards } from '../db/queries/rigs'

/** The rigs of a production, and the cards that seem to be one. */
export async function rigsView(db: Db, productionId: string): Promise<RigsView> {
  const cards = await rigCards(db, productionId)
  const ids = new Set(cards.flatMap((card) => card.rigId ?? []))
  const bare = ({ loadId, label }: { loadId: string; label: string }) => ({ loadId, label })
  const loose = cards.filter((card) => card.rigId === null && card.lookDone)
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
    proposed: loose
      .filter((card) => card.rigProposed && !card.noRig)
      .sort((a, b) => a.label.localeCompare(b.label, 'en', { numeric: true }))
      .map(bare),
    loose: loose.map(bare),
  }
}

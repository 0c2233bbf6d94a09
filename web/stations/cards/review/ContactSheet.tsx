import { useState } from 'react'
import { useParams } from 'react-router'
import { addressAt, piecesOf, type Piece } from '../../../../core/cards/review/selects'
import { secondsOfFrames } from '../../../../core/units/frameRate'
import { counted, formatLength } from '../../../../core/units/quantity'
import { cardsApi } from '../../../../contract/cards'
import { addressOf } from '../../../../contract/endpoint'
import { Ask } from '../../../parts/asking/Ask'
import { Paper } from '../../../parts/Paper'
import { useSelects } from '../queries'
import { clock } from './marks'

/** What is kept, on paper: the first and the last frame of every piece. */
export default function ContactSheet() {
  const { productionId = '' } = useParams()
  const selects = useSelects(productionId)
  return (
    <Paper
      productionId={productionId}
      what="Contact sheet of what is kept"
      back={{ to: `/p/${productionId}/cards/review`, name: 'the review' }}
    >
      {() => (
        <Ask query={selects}>
          {(kept) => {
            const pieces = piecesOf(kept)
            const seconds = pieces.reduce((sum, piece) => sum + piece.seconds, 0)
            return pieces.length === 0 ? (
              <p>Nothing is kept yet.</p>
            ) : (
              <>
                <p className="mb-4">
                  {counted(pieces.length, 'piece')} of {counted(kept.length, 'clip')}, {formatLength(seconds)}.
                </p>
                <ol className="grid grid-cols-2 gap-x-6 gap-y-5 sm:grid-cols-3 print:grid-cols-3">
                  {pieces.map((piece) => (
                    <PieceOnPaper key={`${piece.select.clipId} ${piece.range.from}`} piece={piece} />
                  ))}
                </ol>
              </>
            )
          }}
        </Ask>
      )}
    </Paper>
  )
}

function PieceOnPaper({ piece: { select, range, seconds, name } }: { piece: Piece }) {
  const [first, last] = [range.from, range.to - 1]
  const address = (frame: number) => addressAt(select, frame) ?? clock(frame, select.rate)
  return (
    <li className="break-inside-avoid">
      {select.hasPicture ? (
        <div className="grid grid-cols-2 gap-px">
          {[first, last].map((frame, at) => (
            <FrameOnPaper
              key={at}
              address={addressOf(cardsApi.frame, { id: select.clipId }, { at: secondsOfFrames(frame, select.rate) })}
              what={`${at === 0 ? 'First' : 'Last'} frame of ${name}`}
            />
          ))}
        </div>
      ) : (
        <p className="flex aspect-[32/9] items-center justify-center border border-rule text-sm text-quiet">sound</p>
      )}
      <p className="figure mt-1 truncate font-semibold">{name}</p>
      <p className="figure text-sm">
        {address(first)} – {address(last)}
      </p>
      <p className="text-sm text-quiet">
        {formatLength(seconds)}, {select.load}
      </p>
      {select.note && <p className="text-sm">{select.note}</p>}
    </li>
  )
}

/** A frame of the original, or that nothing which is connected has it. */
function FrameOnPaper({ address, what }: { address: string; what: string }) {
  const [missing, setMissing] = useState(false)
  return missing ? (
    <p className="flex aspect-video items-center justify-center border border-dashed border-rule p-1 text-center text-xs text-quiet">
      its copy is not connected
    </p>
  ) : (
    <img
      src={address}
      alt={what}
      className="aspect-video w-full bg-rule object-cover"
      onError={() => setMissing(true)}
    />
  )
}

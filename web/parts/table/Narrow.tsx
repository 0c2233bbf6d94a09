import { Choice, type Option } from '../controls/Choice'
import { Field } from '../controls/Field'

/** So few are found by looking. */
const FEW = 8

interface NarrowProps<Show extends string> {
  /** How many there are in all. */
  readonly count: number
  readonly typed: string
  readonly onType: (typed: string) => void
  readonly show: Show
  readonly options: readonly (Option & { readonly value: Show })[]
  readonly onShow: (show: Show) => void
}

/** Narrows a list of clips down: by the beginnings of their names' words, and by how they stand. Nothing for a few. */
export function Narrow<Show extends string>({ count, typed, onType, show, options, onShow }: NarrowProps<Show>) {
  if (count <= FEW) return null
  return (
    <div className="flex flex-wrap items-end gap-3">
      <Field
        label="Find a clip"
        className="-mb-2.5 w-56"
        value={typed}
        placeholder="Beginning of its name …"
        onChange={(event) => onType(event.target.value)}
      />
      <Choice
        label="Show"
        className="mb-3 w-48"
        value={show}
        onChange={(value) => onShow(value as Show)}
        options={options}
      />
    </div>
  )
}

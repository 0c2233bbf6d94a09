/** Rows by a value, figures by size and words by letters; equal ones stay as they were, also the other way round. */
export const sortedBy = <Row>(
  rows: readonly Row[],
  value: (row: Row) => string | number,
  down: boolean,
): readonly Row[] => {
  const compare = (a: string | number, b: string | number) =>
    typeof a === 'number' && typeof b === 'number' ? a - b : String(a).localeCompare(String(b))
  return [...rows].sort((a, b) => (down ? compare(value(b), value(a)) : compare(value(a), value(b))))
}

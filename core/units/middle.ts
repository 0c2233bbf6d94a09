const ascending = (values: readonly number[]) => [...values].sort((a, b) => a - b)

/** The median: of an even count the mean of the two in the middle. `undefined` of none. */
export function median(values: readonly number[]): number | undefined {
  const sorted = ascending(values)
  const half = Math.floor(sorted.length / 2)
  const [low, high] = [sorted[half - 1], sorted[half]]
  if (high === undefined) return undefined
  return sorted.length % 2 === 1 || low === undefined ? high : (low + high) / 2
}

/**
 * The value in the middle, which is always one of the values: of an even count the upper of the two. `undefined` of
 * none.
 */
export function middleValue(values: readonly number[]): number | undefined {
  return ascending(values)[Math.floor(values.length / 2)]
}

/** Parts a list by keys, each item under every key of its own, and gives the part of one key in the list's order. */
export function parted<Item, Key>(items: readonly Item[], keysOf: (item: Item) => Iterable<Key>): (key: Key) => Item[] {
  const parts = new Map<Key, Item[]>()
  for (const item of items)
    for (const key of new Set(keysOf(item))) {
      const part = parts.get(key)
      if (part) part.push(item)
      else parts.set(key, [item])
    }
  return (key) => parts.get(key) ?? []
}

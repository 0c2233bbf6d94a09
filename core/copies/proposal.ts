/** What decides whether a volume is proposed for a copy. */
export interface Candidate {
  readonly id: string
  readonly name: string
  readonly kind: string
  readonly connected: boolean
  readonly away: boolean
  readonly budget: { readonly freeBytes: number }
  readonly sharesDriveWith: readonly string[]
}

/** A whole verified copy that exists already. */
export interface Held {
  readonly volumeId: string
  readonly sharesDriveWith: readonly string[]
}

/**
 * Volumes for what is still missing of as many verified copies as the rule wants, each on a drive of its own: the edit drive first, then archive drives
 * with room in the order in which they were added; never a cloud, which is slow, nor two on one drive.
 */
export function proposeVolumes(
  volumes: readonly Candidate[],
  neededBytes: number,
  verified: readonly Held[] = [],
  wanted = 2,
): string[] {
  const roomy = volumes.filter(
    (volume) =>
      volume.connected &&
      !volume.away &&
      volume.kind !== 'cloud' &&
      volume.budget.freeBytes > neededBytes &&
      !verified.some((copy) => copy.volumeId === volume.id || copy.sharesDriveWith.includes(volume.name)),
  )
  const edit = roomy.find((volume) => volume.kind === 'edit')
  const chosen: Candidate[] = []
  for (const volume of [edit, ...roomy.filter((one) => one !== edit)]) {
    if (!volume || chosen.length >= wanted - verified.length) continue
    if (!chosen.some((one) => one.sharesDriveWith.includes(volume.name))) chosen.push(volume)
  }
  return chosen.map((volume) => volume.id)
}

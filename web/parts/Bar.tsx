/** A bar to scale: parts of a whole, left to right. Shares are 0–1. */
export function Bar({
  parts,
  label,
}: {
  parts: readonly { share: number; tone: 'solid' | 'half' | 'light' }[]
  label: string
}) {
  // Where the person chose the colours, what is drawn with backgrounds would vanish.
  const tones = {
    solid: 'bg-accent forced-colors:bg-[CanvasText]',
    half: 'bg-[color-mix(in_srgb,var(--accent)_55%,var(--paper))] forced-colors:bg-[Highlight]',
    light: 'bg-[color-mix(in_srgb,var(--accent)_25%,var(--paper))] forced-colors:bg-[GrayText]',
  }
  return (
    <span
      role="img"
      aria-label={label}
      className="flex h-2.5 w-full overflow-hidden rounded-box bg-rule forced-colors:border"
    >
      {parts.map((part, at) => (
        <span
          key={at}
          className={`h-full forced-color-adjust-none ${tones[part.tone]}`}
          style={{ width: `${Math.min(1, Math.max(0, part.share)) * 100}%` }}
        />
      ))}
    </span>
  )
}

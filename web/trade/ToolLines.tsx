/** What a media program said itself, for whoever wants to look it up. */
export function ToolLines({ lines }: { readonly lines: readonly string[] }) {
  if (lines.length === 0) return null
  return (
    <details className="mt-2 text-quiet">
      <summary>What the media program said</summary>
      {lines.map((line) => (
        <code key={line} className="figure mt-1 block max-w-3xl break-words">
          {line}
        </code>
      ))}
    </details>
  )
}

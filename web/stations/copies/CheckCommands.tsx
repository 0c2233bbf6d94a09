import type { CopyView, LoadCopies } from '../../../contract/copies'
import type { VolumeView } from '../../../contract/storage'

/** A path or name as a shell takes it, whatever is in it (POSIX, single quotes). */
const quoted = (text: string) => `'${text.replaceAll("'", "'\\''")}'`

function commandsOf(copy: CopyView, root: string): string[] {
  const folder = `${root}/${copy.folder}`
  const at = folder.lastIndexOf('/')
  const name = folder.slice(at + 1)
  const inside = `cd ${quoted(folder.slice(0, at))} &&`
  return [
    `${inside} xxhsum --strict --quiet -c ${quoted(`${name}.xxh64`)}`,
    ...(copy.hasOddNames ? [`${inside} sha256sum --strict --quiet -c ${quoted(`${name}.sha256`)}`] : []),
  ]
}

/** How anybody checks a copy without this program, in ten years too. */
export function CheckCommands({ load, volumes }: { load: LoadCopies; volumes: readonly VolumeView[] }) {
  const copies = load.copies.flatMap((copy) => {
    const root = volumes.find((volume) => volume.id === copy.volumeId)?.path
    return root && copy.mark >= 1 ? [{ copy, root }] : []
  })
  if (copies.length === 0) return null
  return (
    <details className="mt-6 text-quiet">
      <summary>Check a copy without Yendra</summary>
      <p className="mt-2 mb-1 max-w-3xl">
        The lists beside each copy are read by programs from Debian. They end with an error when a file is missing or
        differs, and --strict makes them do so for a damaged list, too.
        {load.copies.some((copy) => copy.hasOddNames) &&
          ' Names that the first program cannot read are in a list of their own, for the second program.'}
      </p>
      {copies.map(({ copy, root }) => (
        <div key={copy.volumeId} className="mt-2">
          <span className="font-semibold">{copy.volumeName}</span>
          {commandsOf(copy, root).map((command) => (
            <code key={command} className="figure block break-all">
              {command}
            </code>
          ))}
        </div>
      ))}
    </details>
  )
}

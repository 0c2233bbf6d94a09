import type { CopyView, LoadCopies } from '../../../contract/copies'
import { Link } from 'react-router'
import { shellQuoted } from '../../../core/copies/lists/tools'
import type { VolumeView } from '../../../contract/storage'

function commandsOf(copy: CopyView, root: string): string[] {
  const folder = `${root}/${copy.folder}`
  const at = folder.lastIndexOf('/')
  const name = folder.slice(at + 1)
  const inside = `cd ${shellQuoted(folder.slice(0, at))} &&`
  return [
    `${inside} xxhsum --strict --quiet -c ${shellQuoted(`${name}.xxh64`)}`,
    ...(copy.hasOddNames ? [`${inside} sha256sum --strict --quiet -c ${shellQuoted(`${name}.sha256`)}`] : []),
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
          <Link
            to={`/lists?folder=${encodeURIComponent(`${root}/${copy.folder}`)}`}
            className="text-accent underline underline-offset-4"
          >
            A list of it by SHA-256, SHA-512, MD5 or xxHash 128
          </Link>
        </div>
      ))}
    </details>
  )
}

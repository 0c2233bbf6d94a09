import { FileUp } from 'lucide-react'
import { useRef, type ChangeEvent } from 'react'
import { tableText } from '../../core/units/tableText'
import { Button } from './controls/Button'

export interface OpenedFile {
  readonly text: string
  readonly name: string
  /** As the Encoding Standard names it. */
  readonly encoding: string
}

interface OpenFileProps {
  readonly label: string
  readonly accept: string
  readonly onBegin: () => void
  /** May throw with a sentence. */
  readonly onRead: (file: OpenedFile) => void
  readonly onFault: (error: Error) => void
  readonly children: string
}

const MOST_BYTES = 2_000_000

/** A button that opens a text file, in whatever encoding it is. */
export function OpenFile({ label, accept, onBegin, onRead, onFault, children }: OpenFileProps) {
  const input = useRef<HTMLInputElement>(null)
  const open = async (file: File) => {
    if (file.size > MOST_BYTES) throw new Error(`${file.name} is far too large for a table. Choose another file.`)
    const bytes = await file.arrayBuffer().catch(() => {
      throw new Error(`${file.name} could not be read. Choose it again.`)
    })
    onRead({ ...tableText(new Uint8Array(bytes)), name: file.name })
  }
  const onChange = (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0]
    event.target.value = ''
    if (!file) return
    onBegin()
    void open(file).catch((error: unknown) => onFault(error instanceof Error ? error : new Error(String(error))))
  }
  return (
    <>
      <Button onClick={() => input.current?.click()}>
        <FileUp className="size-4" aria-hidden />
        {children}
      </Button>
      <input ref={input} type="file" accept={accept} aria-label={label} hidden onChange={onChange} />
    </>
  )
}

import { X } from 'lucide-react'
import { object, string } from 'yup'
import { noticedApi } from '../../contract/noticed'
import { Ask } from '../parts/asking/Ask'
import { Button } from '../parts/controls/Button'
import { FormField } from '../parts/form/fields'
import { useTyped } from '../parts/form/useTyped'
import { IconButton } from '../parts/controls/IconButton'
import { Leaving } from '../parts/layers/Leaving'
import { Trouble } from '../parts/Trouble'
import { useAsk } from '../parts/asking/useAsk'
import { useSend } from '../parts/asking/useSend'

/** The list of folders is judged as a whole by the API; here one is added to it. */
const oneFolder = object({ folder: string().trim().required('Give the folder.') })

/** Folders, beside the usual ones, in which whatever is mounted is noticed by itself. */
export function NoticedFolders() {
  const send = useSend(noticedApi.setFolders)
  const { control, handleSubmit, watch, reset } = useTyped(oneFolder, { folder: '' })
  const isEmpty = watch('folder').trim() === ''
  const keep = (folders: readonly string[]) =>
    send.mutate({ params: {}, body: { folders: [...folders] } }, { onSuccess: () => reset() })
  return (
    <section aria-labelledby="noticed" className="max-w-3xl">
      <h2 id="noticed" className="mt-8 mb-1">
        Where cards are noticed
      </h2>
      <p className="mb-2 text-quiet">
        What is mounted under <span className="figure">/media</span> and <span className="figure">/run/media</span> is
        noticed by itself, and so is what is mounted in the folders named here. Until you say that it is a card, only
        the names in its top folder and its free space are read.
      </p>
      <Leaving when={!isEmpty} />
      <Ask query={useAsk(noticedApi.folders, {})}>
        {({ folders }) => (
          <>
            <ul aria-label="Folders in which cards are noticed" className="border-t border-rule empty:hidden">
              {folders.map((folder) => (
                <li key={folder} className="flex items-center justify-between gap-3 border-b border-rule py-1.5">
                  <span className="figure break-all">{folder}</span>
                  <IconButton
                    icon={X}
                    label={`Notice nothing in ${folder} any more`}
                    onClick={() => keep(folders.filter((one) => one !== folder))}
                  />
                </li>
              ))}
            </ul>
            <form
              className="mt-3 flex flex-wrap items-end gap-3"
              onSubmit={(event) => void handleSubmit(({ folder }) => keep([...folders, folder]))(event)}
            >
              <FormField
                control={control}
                name="folder"
                label="Another folder"
                className="-mb-[1.375rem] w-80 max-w-full"
                placeholder="/mnt"
              />
              <Button type="submit" disabled={send.isPending || isEmpty}>
                Notice there too
              </Button>
            </form>
            <div className="mt-2">
              <Trouble error={send.error} />
            </div>
          </>
        )}
      </Ask>
    </section>
  )
}

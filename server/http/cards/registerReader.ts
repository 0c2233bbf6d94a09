import { putAway } from '../../db/queries/locker'
import { addReader, readers } from '../../db/queries/readers'
import { tellChanged } from '../../db/queries/tasks'
import { volumes } from '../../db/queries/volumes'
import { isTaken } from '../../db/taken'
import { placesOnDevice } from '../../facts/volumes'
import { folderFigures, registrableFolder } from '../../media/register'
import type { Context } from '../context'
import { invalid } from '../problem'

interface NewReader {
  readonly name: string
  readonly path: string
  readonly sure: boolean
}

/** Registers a folder as a reader, or brings back the one that was put away. Names what lies on the same device. */
export async function registerReader(
  { db, host, looks }: Pick<Context, 'db' | 'host' | 'looks'>,
  { name, path, sure }: NewReader,
): Promise<{ id: string; sharesDriveWith: string[] }> {
  const known = await readers(db)
  const away = known.find((row) => row.putAwayAt !== null && row.rootPath === path)
  if (away) {
    await putAway(db, 'reader', away.id, false)
    await looks.ask()
    await tellChanged(db, 'cards', 'gear')
    return { id: away.id, sharesDriveWith: [] }
  }
  if (known.some((row) => row.name === name)) throw invalid(`There is a reader called ${name} already.`, 'name')
  const taken = [...known, ...(await volumes(db, host)).filter((row) => row.connected)].map((row) => row.rootPath)
  const rootPath = await registrableFolder(path, taken, sure)
  const { device } = await folderFigures(rootPath)
  const sharesDriveWith = await placesOnDevice(db, host, device, '')
  const { id } = await addReader(db, { name, rootPath, simulated: false, host }).catch((error: unknown) => {
    if (isTaken(error)) throw invalid(`There is a reader called ${name}, or one in this folder, already.`, 'name')
    throw error
  })
  await looks.ask()
  await tellChanged(db, 'cards')
  return { id, sharesDriveWith }
}

import { realpath, stat } from 'node:fs/promises'
import { resolve } from 'node:path'
import { home } from '../home'
import { invalid } from './problem'

const SYSTEM = [
  '/',
  '/bin',
  '/boot',
  '/dev',
  '/etc',
  '/lib',
  '/lib64',
  '/proc',
  '/run',
  '/sbin',
  '/sys',
  '/usr',
  '/var',
]

const within = (inner: string, outer: string) => inner === outer || inner.startsWith(`${outer === '/' ? '' : outer}/`)

/** The real folder behind a path somebody typed; refuses what is none, what belongs to the system, and our own folder. */
export async function registrableFolder(path: string, taken: readonly (string | null)[]): Promise<string> {
  const real = await realpath(resolve(path)).catch(() => undefined)
  if (!real || !(await stat(real).catch(() => undefined))?.isDirectory())
    throw invalid(`There is no folder at ${path}. Connect the drive and check the path.`, 'path')
  const system = SYSTEM.some(
    (folder) => real === folder || (folder !== '/' && folder !== '/run' && folder !== '/var' && within(real, folder)),
  )
  if (system)
    throw invalid(
      `${path} belongs to the system. Give the folder where the drive or card appears, such as /media/you/NAME.`,
      'path',
    )
  const own = await realpath(home())
  if (within(real, own) || within(own, real))
    throw invalid(`${path} is where Yendra keeps its own things. Choose another folder.`, 'path')
  const overlap = taken.find((root) => root !== null && (within(real, root) || within(root, real)))
  if (overlap) throw invalid(`${path} overlaps with ${overlap}, which is registered already.`, 'path')
  return real
}

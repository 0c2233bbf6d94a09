import { existsSync } from 'node:fs'
import { hostname } from 'node:os'
import { dirname, join } from 'node:path'

/** The folder where this installation keeps its own things; set by the start command. */
export function home(): string {
  const folder = process.env.YENDRA_HOME
  if (!folder) throw new Error('YENDRA_HOME is not set. Start with "npm start".')
  return folder
}

/** For trials: disk images count as drives of their own, and each answer says so. */
export const loopsApart = (): boolean => process.env.YENDRA_LOOPS === 'apart'

/** Where the database keeps its files, where the start command says so. */
export const booksFolder = (): string | undefined => process.env.YENDRA_BOOKS

export const picturesFolder = (): string => join(home(), 'pictures')
/** Small films of clips that browsers cannot play; each can be made again. */
export const previewsFolder = (): string => join(home(), 'previews')
/** Checksum lists that were written for download; each can be made again. */
export const listsFolder = (): string => join(home(), 'lists')
export const writtenListPath = (taskId: string, algorithm: string): string =>
  join(listsFolder(), `${taskId}.${algorithm}`)
export const benchFolder = (): string => join(home(), 'bench')

/** Volumes and readers belong to the machine they are mounted on; its worker takes their jobs. */
export const hostName = (): string => hostname().replace(/[^A-Za-z0-9_.-]/g, '-')

export function databaseUrl(): string {
  const url = process.env.DATABASE_URL
  if (!url) throw new Error('DATABASE_URL is not set. Start with "npm start".')
  return url
}

/** Where this application itself lies, with its sources and packages: the next folder above with a package.json. */
export function programFolder(): string {
  let folder = import.meta.dirname
  while (!existsSync(join(folder, 'package.json')) && folder !== dirname(folder)) folder = dirname(folder)
  return folder
}

import { readFile } from 'node:fs/promises'

export interface Mounted {
  readonly path: string
  readonly type: string
  readonly source: string
}

/** What is mounted on this computer. Source: proc_pid_mountinfo(5); spaces and the like are octal escapes. */
export async function mounts(): Promise<Mounted[]> {
  const table = await readFile('/proc/self/mountinfo', 'utf8').catch(() => '')
  return table.split('\n').flatMap((line) => {
    const fields = line.split(' ')
    // Optional fields end with a lone hyphen.
    const end = fields.indexOf('-', 6)
    const [path, type, source] = [fields[4], fields[end + 1], fields[end + 2]]
    return path !== undefined && end > 0
      ? { path: unescaped(path), type: type ?? '', source: unescaped(source ?? '') }
      : []
  })
}

const unescaped = (text: string) =>
  text.replaceAll(/\\([0-7]{3})/g, (_, octal: string) => String.fromCharCode(parseInt(octal, 8)))

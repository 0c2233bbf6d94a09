import { readFile, realpath } from 'node:fs/promises'
import { basename, dirname, join } from 'node:path'
import type { BusLink } from '../../../core/copies/device'

const lineOf = async (path: string) => (await readFile(path, 'utf8').catch(() => '')).trim()
const HIGHEST = 24

/**
 * The USB links between a block device and its computer, its own cable first, by its folder in the system’s device
 * tree; empty where it hangs on none. Source: Documentation/ABI/testing/sysfs-bus-usb of Linux (`speed`, in Mb/s).
 */
export async function busOf(block: string): Promise<BusLink[]> {
  const links: BusLink[] = []
  let folder = await realpath(block).catch(() => '/')
  for (let height = 0; folder !== '/' && height < HIGHEST; folder = dirname(folder), height += 1) {
    if ((await lineOf(join(folder, 'idVendor'))) === '') continue
    const megabits = Number(await lineOf(join(folder, 'speed')))
    if (megabits > 0) links.push({ port: basename(folder), bitsPerSecond: megabits * 1e6 })
  }
  return links
}

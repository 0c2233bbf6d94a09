import { parentOf, type Medium } from '../medium/medium'
import { NewNames } from './newNames'

/** Gives a finished part of ours its name, durable with what is in it; `taken` when something has that name. */
export async function publishNew(medium: Medium, part: Buffer, path: Buffer): Promise<'named' | 'taken'> {
  await medium.makeFolder(parentOf(path))
  // Outside programs wrote the part: nobody has waited for the medium yet.
  await medium.settleFile(part)
  const result = await medium.publish(part, path)
  if (result === 'named') await settleName(medium, path)
  return result
}

/** As `publishNew`, over an earlier version of ours: the old one stays until the new one is whole. */
export async function publishOver(medium: Medium, part: Buffer, path: Buffer): Promise<void> {
  await medium.makeFolder(parentOf(path))
  await medium.settleFile(part)
  await medium.replace(part, path)
  await settleName(medium, path)
}

/** What lies under its name already, since an earlier run was cut just after it gave it: made durable all the same. */
export async function settlePublished(medium: Medium, path: Buffer): Promise<void> {
  await medium.settleFile(path)
  await settleName(medium, path)
}

/**
 * Moves something of the person’s own out of the way; it keeps its content and gets another place. Does nothing but
 * wait for the medium when an earlier run moved it.
 */
export async function setAside(medium: Medium, from: Buffer, to: Buffer): Promise<void> {
  const names = new NewNames(medium)
  const [here, there] = [await medium.entry(from), await medium.entry(to)]
  if (!here && !there) return
  // A cut may leave one file under both names; only then does the old name go by itself, and only while the other
  // opens.
  if (here && there && here.node === there.node) {
    await (await medium.open(to)).close()
    await medium.remove(from)
  } else if (here) await medium.move(from, to)
  names.add(to)
  names.add(from)
  await names.settle()
}

export async function settleName(medium: Medium, path: Buffer): Promise<void> {
  const names = new NewNames(medium)
  names.add(path)
  await names.settle()
}

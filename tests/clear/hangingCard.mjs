// A file system in user space that shows a folder, and never answers for one of its files. Called with the mount point,
// the folder, and the name of that file. Source: fuse(4) and include/uapi/linux/fuse.h of Linux, protocol 7.31.
import { spawnSync } from 'node:child_process'
import { lstatSync, openSync, read, readdirSync, readFileSync, writeSync, constants } from 'node:fs'
import { basename, join } from 'node:path'

const [at, folder, hanging] = process.argv.slice(2)
const ENOENT = -2
const ENOSYS = -38
const paths = [undefined, folder]
const ids = new Map([[folder, 1]])
const idOf = (path) => {
  if (!ids.has(path)) {
    ids.set(path, paths.length)
    paths.push(path)
  }
  return ids.get(path)
}

function attributes(path) {
  const stats = lstatSync(path)
  const out = Buffer.alloc(88)
  out.writeBigUInt64LE(BigInt(idOf(path)), 0)
  out.writeBigUInt64LE(BigInt(stats.size), 8)
  out.writeBigUInt64LE(BigInt(Math.ceil(stats.size / 512)), 16)
  for (const [index, ms] of [stats.atimeMs, stats.mtimeMs, stats.ctimeMs].entries()) {
    out.writeBigUInt64LE(BigInt(Math.floor(ms / 1000)), 24 + index * 8)
    out.writeUInt32LE(Math.floor(ms % 1000) * 1e6, 48 + index * 4)
  }
  out.writeUInt32LE(stats.mode, 60)
  out.writeUInt32LE(1, 64)
  out.writeUInt32LE(4096, 80)
  return out
}

function entry(path) {
  const head = Buffer.alloc(40)
  head.writeBigUInt64LE(BigInt(idOf(path)), 0)
  return Buffer.concat([head, attributes(path)])
}

function listing(path, offset, size) {
  const out = []
  let bytes = 0
  const names = ['.', '..', ...readdirSync(path)]
  for (let at = offset; at < names.length; at += 1) {
    const name = Buffer.from(names[at])
    const record = Buffer.alloc(Math.ceil((24 + name.length) / 8) * 8)
    if (bytes + record.length > size) break
    record.writeBigUInt64LE(BigInt(idOf(join(path, names[at]))), 0)
    record.writeBigUInt64LE(BigInt(at + 1), 8)
    record.writeUInt32LE(name.length, 16)
    name.copy(record, 24)
    out.push(record)
    bytes += record.length
  }
  return Buffer.concat(out)
}

/** What is answered: bytes, an error number, or nothing at all. */
function answerTo(operation, node, body) {
  const path = paths[node]
  switch (operation) {
    case 1: {
      const inner = join(path, body.toString('utf8', 0, body.indexOf(0)))
      try {
        return entry(inner)
      } catch {
        return ENOENT
      }
    }
    case 3:
      return Buffer.concat([Buffer.alloc(16), attributes(path)])
    case 14:
    case 27:
      return Buffer.alloc(16)
    case 15: {
      if (basename(path) === hanging) return undefined
      const [from, size] = [Number(body.readBigUInt64LE(8)), body.readUInt32LE(16)]
      return readFileSync(path).subarray(from, from + size)
    }
    case 17: {
      const out = Buffer.alloc(80)
      out.writeBigUInt64LE(100_000n, 0)
      out.writeUInt32LE(4096, 40)
      out.writeUInt32LE(255, 44)
      out.writeUInt32LE(4096, 48)
      return out
    }
    case 28:
      return listing(path, Number(body.readBigUInt64LE(8)), body.readUInt32LE(16))
    case 18:
    case 25:
    case 29:
      return Buffer.alloc(0)
    case 26: {
      const out = Buffer.alloc(64)
      out.writeUInt32LE(7, 0)
      out.writeUInt32LE(31, 4)
      out.writeUInt32LE(131_072, 8)
      out.writeUInt16LE(12, 16)
      out.writeUInt16LE(9, 18)
      out.writeUInt32LE(131_072, 20)
      out.writeUInt32LE(1, 24)
      return out
    }
    // Forgetting and interrupting want no answer.
    case 2:
    case 36:
    case 42:
      return undefined
    default:
      return ENOSYS
  }
}

const device = openSync('/dev/fuse', constants.O_RDWR)
const mounted = spawnSync(
  'mount',
  ['-i', '-t', 'fuse', '-o', 'fd=3,rootmode=40000,user_id=0,group_id=0,ro', 'hanging', at],
  {
    stdio: ['ignore', 'inherit', 'inherit', device],
  },
)
if (mounted.status !== 0) process.exit(1)
process.send?.('mounted')

const block = Buffer.alloc(1024 * 1024)
const next = () =>
  read(device, block, 0, block.length, null, (error, length) => {
    if (error?.code === 'ENODEV') process.exit(0)
    if (!error) {
      const [operation, unique, node] = [
        block.readUInt32LE(4),
        block.readBigUInt64LE(8),
        Number(block.readBigUInt64LE(16)),
      ]
      const answer = answerTo(operation, node, block.subarray(40, length))
      if (answer !== undefined) {
        const head = Buffer.alloc(16)
        const bytes = typeof answer === 'number' ? Buffer.alloc(0) : answer
        head.writeUInt32LE(16 + bytes.length, 0)
        head.writeInt32LE(typeof answer === 'number' ? answer : 0, 4)
        head.writeBigUInt64LE(unique, 8)
        writeSync(device, Buffer.concat([head, bytes]))
      }
    }
    next()
  })
next()

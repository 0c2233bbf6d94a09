import { execFile } from 'node:child_process'
import type { Stats } from 'node:fs'
import * as fs from 'node:fs/promises'
import { promisify } from 'node:util'
import type { DeviceIdentity } from '../../core/copies/device'
import { deviceOf } from './device'

const run = promisify(execFile)

/** An open file of a disk. */
export interface DiskFile {
  read(block: Uint8Array, offset: number, length: number, position: number): Promise<{ bytesRead: number }>
  write(block: Uint8Array, offset: number, length: number, position: number): Promise<{ bytesWritten: number }>
  sync(): Promise<void>
  utimes(accessedSeconds: number, modifiedSeconds: number): Promise<void>
  stat(): Promise<DiskStats>
  close(): Promise<void>
}

export type DiskStats = Pick<Stats, 'size' | 'mtimeMs' | 'dev' | 'ino' | 'isFile' | 'isDirectory' | 'isSymbolicLink'>

/** The calls of the system that a folder medium makes, so that tests can put a disk with a power switch in their place. */
export interface Disk {
  open(path: Buffer, flags: number, mode?: number): Promise<DiskFile>
  lstat(path: Buffer): Promise<DiskStats>
  readdir(path: Buffer): Promise<Buffer[]>
  readlink(path: Buffer): Promise<Buffer>
  mkdir(path: Buffer): Promise<void>
  link(from: Buffer, to: Buffer): Promise<void>
  unlink(path: Buffer): Promise<void>
  rename(from: Buffer, to: Buffer): Promise<void>
  /** Removes a file or a whole folder; nothing there is no error. */
  remove(path: Buffer): Promise<void>
  /** Waits until everything written to the file system of this folder is on its medium. */
  syncFileSystem(folder: string): Promise<void>
  statfs(folder: string): Promise<{ blocks: number; bsize: number; bavail: number }>
  device(root: string): Promise<DeviceIdentity>
}

export const realDisk: Disk = {
  open: (path, flags, mode) => fs.open(path, flags, mode),
  lstat: (path) => fs.lstat(path),
  readdir: (path) => fs.readdir(path, { encoding: 'buffer' }),
  readlink: (path) => fs.readlink(path, { encoding: 'buffer' }),
  mkdir: (path) => fs.mkdir(path).then(() => undefined),
  link: (from, to) => fs.link(from, to),
  unlink: (path) => fs.unlink(path),
  rename: (from, to) => fs.rename(from, to),
  remove: (path) => fs.rm(path, { force: true, recursive: true }),
  syncFileSystem: (folder) => run('sync', ['-f', folder]).then(() => undefined),
  statfs: (folder) => fs.statfs(folder),
  device: deviceOf,
}

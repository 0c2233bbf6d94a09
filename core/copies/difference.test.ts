import { describe, expect, it } from 'vitest'
import { differenceOf } from './difference'

// Which times and numbers a write touches is said in inode(7) of Linux.
const lay = { sizeBytes: 1000, modifiedMs: 5000.25, inode: '12', changedMs: 6000 }

describe('how a file is not what was proved', () => {
  it.each([
    ['rot', {}],
    ['rot', { modifiedMs: 5000.75 }],
    ['rewritten', { changedMs: 6001 }],
    ['rewritten', { inode: '13' }],
    ['rewritten', { inode: '13', changedMs: null }],
    ['edited', { modifiedMs: 5001, changedMs: 6001 }],
    ['replaced', { sizeBytes: 1001, modifiedMs: 5001, changedMs: 6001, inode: '13' }],
    // Written in place, a file keeps its number: without its time of change nobody can tell.
    ['unclear', { changedMs: null }],
    ['unclear', { inode: null, changedMs: null }],
  ] as const)('is %s where it lies so: %o', (difference, otherwise) => {
    expect(differenceOf(lay, { ...lay, ...otherwise })).toBe(difference)
    expect(differenceOf({ ...lay, ...otherwise }, lay)).toBe(difference)
  })

  it('is rot where a file system keeps times of change alone', () => {
    expect(differenceOf({ ...lay, inode: null }, { ...lay, inode: null })).toBe('rot')
  })
})

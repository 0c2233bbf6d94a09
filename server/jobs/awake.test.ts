import { chmodSync, existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { Awake } from './awake'

const folder = mkdtempSync(join(tmpdir(), 'yendra-awake-'))
const [path, told] = [process.env.PATH ?? '', join(folder, 'told')]
afterAll(() => {
  process.env.PATH = path
})

const until = async (is: () => boolean) => {
  for (let turn = 0; turn < 100 && !is(); turn += 1) await new Promise((resolve) => setTimeout(resolve, 50))
  expect(is()).toBe(true)
}

describe('a computer in which something is copied', () => {
  it('is kept awake from the first piece of work to the last, where the system can be told', async () => {
    // In the place of systemd-inhibit(1), which holds its lock as long as the program after its options runs.
    const program = join(folder, 'systemd-inhibit')
    writeFileSync(program, `#!/bin/sh\necho "$$ $*" >> ${told}\nexec sleep 600\n`)
    chmodSync(program, 0o755)
    process.env.PATH = `${folder}:${path}`
    const awake = new Awake()
    awake.begin('one')
    awake.begin('two')
    await until(() => existsSync(told))
    const [line = '', ...more] = readFileSync(told, 'utf8').trim().split('\n')
    expect(more).toEqual([])
    expect(line).toContain('--what=sleep:idle --who=Yendra')
    const pid = line.split(' ')[0] ?? ''
    awake.end('one')
    await new Promise((resolve) => setTimeout(resolve, 100))
    expect(existsSync(`/proc/${pid}`)).toBe(true)
    awake.end('two')
    await until(() => !existsSync(`/proc/${pid}`))
  })

  it('does its work where nobody can be told', async () => {
    process.env.PATH = mkdtempSync(join(tmpdir(), 'yendra-awake-'))
    const awake = new Awake()
    awake.begin('one')
    await new Promise((resolve) => setTimeout(resolve, 50))
    awake.end('one')
  })
})

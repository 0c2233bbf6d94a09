import { execFileSync } from 'node:child_process'
import { describe, expect, it } from 'vitest'
import { tableText } from '../../core/units/tableText'

/** Source: iconv of Debian's C library. */
const as = (encoding: string, text: string): Buffer =>
  execFileSync('iconv', ['-f', 'UTF-8', '-t', encoding], { input: text })

const TEXT = 'Shot,Camera,Notes\r\n"Möwen, tief",Plover,“Ø 5 €” – ruhig\r\nÎle,Curlew,ça va\r\n'

describe('a table that a person gives', () => {
  it.each([
    ['UTF-8', 'utf-8'],
    ['CP1252', 'windows-1252'],
    ['UTF-16LE', 'utf-16le'],
    ['UTF-16BE', 'utf-16be'],
  ])('is read in %s, with a byte order mark and without', (written, encoding) => {
    expect(tableText(as(written, TEXT))).toEqual({ text: TEXT, encoding })
    if (written !== 'CP1252') expect(tableText(as(written, `\uFEFF${TEXT}`))).toEqual({ text: TEXT, encoding })
  })

  it('is refused where it is a web page, a workbook or no text at all', () => {
    for (const page of ['<!DOCTYPE html><title>Sign in</title>', '\n  <html><body>', '<table><tr><td>Shot'])
      expect(() => tableText(as('UTF-8', page))).toThrow('web page')
    expect(() => tableText(execFileSync('sh', ['-c', 'printf "PK\\003\\004\\024\\000"']))).toThrow('workbook')
    expect(() => tableText(Buffer.from([1, 0, 0, 0, 2, 0, 7, 9, 0, 0, 0, 0, 0]))).toThrow('no table of text')
    expect(tableText(Buffer.alloc(0)).text).toBe('')
  })
})

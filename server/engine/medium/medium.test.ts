import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { joinPath } from './medium'

describe('a path of parts', () => {
  it('has one slash between those that are not empty, whatever their bytes', () => {
    fc.assert(
      fc.property(fc.array(fc.uint8Array({ maxLength: 12 }), { maxLength: 5 }), (parts) => {
        const told = parts.filter((part) => part.length > 0).map((part) => Buffer.from(part).toString('latin1'))
        expect(joinPath(...parts.map((part) => Buffer.from(part))).toString('latin1')).toBe(told.join('/'))
      }),
    )
  })
})

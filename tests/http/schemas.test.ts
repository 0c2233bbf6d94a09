import { ValidationError } from 'yup'
import { describe, expect, it } from 'vitest'
import { ENDPOINTS } from '../../contract/api'
import { storableFault } from '../../server/http/storable'
import { isLong } from '../long'
import { bodiesNear } from './near'

const BODIES = isLong ? 1000 : 300

const inWords = (question: unknown) =>
  Object.fromEntries(Object.entries(question ?? {}).map(([name, value]) => [name, String(JSON.stringify(value))]))

describe('the schemas of the API', () => {
  it('take a body or name what is wrong with it, whatever it is', () => {
    for (const [at, { method, path, body, query }] of ENDPOINTS.entries())
      for (const schema of [body, query])
        for (const one of schema ? bodiesNear(schema, () => [], at, BODIES) : []) {
          if (storableFault(one)) continue
          try {
            // As the server does, after what no field may be: what stands in an address is text, and no kind is asked
            // of it before.
            if (schema === body) schema?.validateSync(one, { strict: true })
            schema?.validateSync(schema === query ? inWords(one) : one, { stripUnknown: false })
          } catch (error) {
            expect(error, `${method} ${path} ${JSON.stringify(one).slice(0, 300)}`).toBeInstanceOf(ValidationError)
          }
        }
  })
})

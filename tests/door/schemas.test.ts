import { ValidationError } from 'yup'
import { describe, expect, it } from 'vitest'
import { ENDPOINTS } from '../../contract/api'
import { bodiesNear } from './near'

const BODIES = 1000

describe('the schemas of the API', () => {
  it('take a body or name what is wrong with it, whatever it is', () => {
    for (const [at, { method, path, body, query }] of ENDPOINTS.entries())
      for (const schema of [body, query])
        for (const one of schema ? bodiesNear(schema, () => [], at, BODIES) : [])
          try {
            schema?.validateSync(one, { strict: true })
            schema?.validateSync(one, { stripUnknown: false })
          } catch (error) {
            expect(error, `${method} ${path} ${JSON.stringify(one).slice(0, 300)}`).toBeInstanceOf(ValidationError)
          }
  })
})

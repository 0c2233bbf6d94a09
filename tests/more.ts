import { it } from 'vitest'
import { isLong } from './long'

/** A test of what others test already, of another kind or size: in `npm run test:long` only. */
export const more = it.skipIf(!isLong)

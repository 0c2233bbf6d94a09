import fc from 'fast-check'

/** Thousands of changes are tried: what a property does not see in so many runs counts as not seen. */
fc.configureGlobal({ numRuns: 15 })

/** Flags of Node.js for our programs: memory is given back early, and a card of many files fits below 300 MB. */
export const MEMORY_FLAGS = ['--max-semi-space-size=8', '--max-old-space-size=1024']

/**
 * Variables of our programs. Files wait for the disk: more threads than the default four keep several drives busy, and
 * they share two heaps of the C library instead of having one each.
 */
export const MEMORY_ENV = { UV_THREADPOOL_SIZE: '16', MALLOC_ARENA_MAX: '2' }

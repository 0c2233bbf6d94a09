/** Flags of Node.js for our programs: memory is given back early, and a card of many files fits below 300 MB. */
export const MEMORY_FLAGS = ['--max-semi-space-size=8', '--max-old-space-size=1024']

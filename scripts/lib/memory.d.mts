export const MEMORY_FLAGS: readonly string[]

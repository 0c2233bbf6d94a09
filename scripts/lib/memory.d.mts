export const MEMORY_FLAGS: readonly string[]
export const MEMORY_ENV: Readonly<Record<string, string>>

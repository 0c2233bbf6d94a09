/**
 * Whether a write failed because a name, a path or another unique thing is taken. Source: PostgreSQL documentation,
 * appendix A: 23505 is unique_violation.
 */
export const isTaken = (error: unknown): boolean => error instanceof Error && 'code' in error && error.code === '23505'

/**
 * Whether a write failed because something refers to what would go, or to what is not there. Source: PostgreSQL
 * documentation, appendix A: 23503 is foreign_key_violation.
 */
export const isHeld = (error: unknown): boolean => error instanceof Error && 'code' in error && error.code === '23503'

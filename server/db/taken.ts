/** Whether a write failed because a name, a path or another unique thing is taken. Source: PostgreSQL documentation, appendix A: 23505 is unique_violation. */
export const isTaken = (error: unknown): boolean => error instanceof Error && 'code' in error && error.code === '23505'

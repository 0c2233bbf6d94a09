import type { ColumnType } from 'kysely'

export type Now = ColumnType<Date, Date | undefined, Date>
export type Json<T extends object> = ColumnType<T, string, string>
export type JsonOrNull<T extends object> = ColumnType<T | null, string | null | undefined, string | null>
/** Filled by the database when it is not given. */
export type Given<T> = ColumnType<T, T | undefined, T>
/** When it was put away; `null` while it is at hand. */
export type Away = ColumnType<Date | null, Date | null | undefined, Date | null>

import { string } from 'yup'

/** Text as a person types it: spaces around it mean nothing. */
export const text = () => string().transform((value: unknown) => (typeof value === 'string' ? value.trim() : value))

/** An absolute path of a folder. Source of the length: PATH_MAX of Linux. */
export const folderPath = (missing: string) =>
  string()
    .required(missing)
    .max(4096, 'A path has at most 4096 characters.')
    .matches(/^\//, 'Give a path that starts with /.')

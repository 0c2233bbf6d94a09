/** The folder of a path, `''` where it lies at the top: `DCIM/100/CURL0012.MP4` is in `DCIM/100`. */
export const folderOf = (path: string): string => path.slice(0, Math.max(0, path.lastIndexOf('/')))

/** The last part of a path: `CURL0012.MP4`. */
export const fileNameOf = (path: string): string => path.slice(path.lastIndexOf('/') + 1)

/**
 * A path without the ending of its file: `DCIM/100/CURL0012`. A name whose only full stop comes first has no ending.
 */
export const withoutEnding = (path: string): string => path.replace(/(?<=[^/])\.[^./]*$/, '')

/** The name of a file without its ending: `CURL0012`. */
export const stemOf = (path: string): string => withoutEnding(fileNameOf(path))

/** The ending of a file in small letters and without its full stop, `''` where it has none: `mp4`. */
export const endingOf = (path: string): string => path.slice(withoutEnding(path).length + 1).toLowerCase()

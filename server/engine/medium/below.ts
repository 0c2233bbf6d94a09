import { joinPath, type Medium } from './medium'

/** A folder of a medium as a medium to be read: paths are those below it. Nothing is written through it. */
export function below(medium: Medium, folder: Buffer): Medium {
  const own: Partial<Medium> = {
    list: (path) => medium.list(joinPath(folder, path)),
    tree: (path) => medium.tree?.(joinPath(folder, path)) ?? Promise.resolve(undefined),
    entry: (path) => medium.entry(joinPath(folder, path)),
    open: (path, how) => medium.open(joinPath(folder, path), how),
  }
  return new Proxy(medium, {
    get(target, name) {
      if (Object.hasOwn(own, name)) return own[name as keyof Medium]
      const value: unknown = Reflect.get(target, name, target)
      return typeof value === 'function' ? (value.bind(target) as unknown) : value
    },
  })
}

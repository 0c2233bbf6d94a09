/** The text files of a BagIt 1.0 bag (RFC 8493). */

export interface PayloadFile {
  /** Path inside the bag, with `data/` in front and `/` between parts. */
  readonly path: string
  readonly sizeBytes: number
  readonly sha256: string
}

/** The declaration, RFC 8493 section 2.1.1. */
export const BAG_DECLARATION = 'BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n'

/** Only line ends and the percent sign are encoded in manifests, RFC 8493 section 2.1.3. */
const encodePath = (path: string) => path.replaceAll('%', '%25').replaceAll('\n', '%0A').replaceAll('\r', '%0D')

/** The inverse, in a bag of this version: before 1.0 the percent sign itself was not encoded. */
export function decodeBagPath(path: string, version: string): string {
  const lines = path.replace(/%0A/gi, '\n').replace(/%0D/gi, '\r')
  return Number(version) >= 1 ? lines.replaceAll('%25', '%') : lines
}

/** Payload or tag manifest, one `hash  path` a line in path order. */
export const bagManifest = (files: readonly { path: string; sha256: string }[]): string =>
  [...files]
    .sort((a, b) => (a.path < b.path ? -1 : 1))
    .map((file) => `${file.sha256}  ${encodePath(file.path)}\n`)
    .join('')

/** `Payload-Oxum` value: octets and files, RFC 8493 section 2.2.2. */
export const payloadOxum = (files: readonly PayloadFile[]): string =>
  `${files.reduce((sum, file) => sum + file.sizeBytes, 0)}.${files.length}`

/** `bag-info.txt`: one `Label: value` a line; line ends inside a value are folded to spaces. */
export const bagInfo = (entries: readonly (readonly [label: string, value: string])[]): string =>
  entries.map(([label, value]) => `${label}: ${value.replace(/\s*[\r\n]+\s*/g, ' ')}\n`).join('')

export interface BagDeclaration {
  /** Such as 1.0; `undefined` where it is not declared as the standard wants. */
  readonly version: string | undefined
  readonly isUtf8: boolean
}

/** Reads `bagit.txt`, RFC 8493 section 2.1.1. */
export function readDeclaration(text: string): BagDeclaration {
  const [, version, encoding = ''] =
    /^BagIt-Version: (\d+\.\d+)[ \t]*\r?\nTag-File-Character-Encoding: ([^\r\n]+?)[ \t]*(?:\r?\n)?$/.exec(text) ?? []
  return { version, isUtf8: encoding.toLowerCase() === 'utf-8' }
}

/** Octets and files that `bag-info.txt` names as those of the payload; `undefined` where it names none. */
export function readOxum(info: string): { readonly sizeBytes: number; readonly files: number } | undefined {
  const [, bytes, files] = /^Payload-Oxum:[ \t]*(\d+)\.(\d+)[ \t]*\r?$/im.exec(info) ?? []
  return bytes === undefined || files === undefined ? undefined : { sizeBytes: Number(bytes), files: Number(files) }
}

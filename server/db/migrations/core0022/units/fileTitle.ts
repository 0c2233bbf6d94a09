/** The beginning of a text in at most so many bytes of UTF-8; no character is cut in half, and none of its accents. */
function shortened(text: string, mostBytes: number): string {
  let bytes = 0
  let out = ''
  for (const { segment } of new Intl.Segmenter().segment(text.toWellFormed())) {
    bytes += new TextEncoder().encode(segment).length
    if (bytes > mostBytes) break
    out += segment
  }
  return out || 'untitled'
}

/** A title as the name of a folder or file: no separators, control characters or leading dots, at most 120 bytes. Percent signs go too: BagIt encodes them in manifests, and common tools then look for another name. */
export function fileTitle(title: string): string {
  const plain = title
    .replace(/[\u0000-\u001f\u007f/\\:*?"<>|%]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .replace(/^\.+/, '')
    .replace(/[. ]+$/, '')
  return shortened(plain || 'untitled', 120).trim()
}

/** Whether two titles would give one folder, also on drives that do not tell capital letters apart. */
export const sameFolder = (a: string, b: string): boolean => fileTitle(a).toLowerCase() === fileTitle(b).toLowerCase()

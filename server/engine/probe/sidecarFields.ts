import { XMLParser } from 'fast-xml-parser'
import type { SidecarField } from '../../../core/media/facts'

const MOST_FIELDS = 60
const LONGEST_VALUE = 200

const reader = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '',
  removeNSPrefix: true,
  // A card is untrusted: nothing in it is expanded.
  processEntities: false,
  parseTagValue: false,
  parseAttributeValue: false,
  ignoreDeclaration: true,
  ignorePiTags: true,
})

/**
 * What a sidecar in XML says, flat, in its order: `Device/modelName` is `Curlew`. The first 60 fields, each cut at 200
 * characters; empty when it is no XML. Shown to people, never relied on.
 */
export function sidecarFields(xml: string): SidecarField[] {
  if (/<!DOCTYPE/i.test(xml)) return []
  let tree: unknown
  try {
    tree = reader.parse(xml)
  } catch {
    return []
  }
  const fields: SidecarField[] = []
  collect(tree, [], fields)
  return fields
}

function collect(node: unknown, path: readonly string[], fields: SidecarField[]): void {
  if (fields.length >= MOST_FIELDS || path.length > 30) return
  if (Array.isArray(node)) for (const one of node) collect(one, path, fields)
  else if (node !== null && typeof node === 'object')
    for (const [name, value] of Object.entries(node)) collect(value, name === '#text' ? path : [...path, name], fields)
  else if ((typeof node === 'string' || typeof node === 'number') && String(node).trim() !== '')
    // The outermost element only says what kind of document it is.
    fields.push({
      name: path.slice(1).join('/') || (path[0] ?? ''),
      value: String(node).trim().slice(0, LONGEST_VALUE),
    })
}

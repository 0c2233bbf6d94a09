import qrcode from 'qrcode-generator'

/** Light modules around a code. Source: ISO/IEC 18004, 6.3.8 (quiet zone). */
const QUIET = 4

/** A QR code of a text in UTF-8 as one path of an SVG, and how many modules it is wide; about a seventh of it may be lost. */
export function qrPath(text: string): { readonly path: string; readonly modules: number } {
  const code = qrcode(0, 'M')
  // The library takes one byte a character.
  code.addData(String.fromCharCode(...new TextEncoder().encode(text)), 'Byte')
  code.make()
  const count = code.getModuleCount()
  let path = ''
  for (let row = 0; row < count; row += 1)
    for (let column = 0; column < count; column += 1)
      if (code.isDark(row, column)) path += `M${column + QUIET} ${row + QUIET}h1v1h-1z`
  return { path, modules: count + 2 * QUIET }
}

import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'

const css = readFileSync(new URL('./tokens.css', import.meta.url), 'utf8')

/** The colours of one theme by role; night overrides day. */
function colours(theme: 'day' | 'night'): Map<string, string> {
  const block = (selector: string) => css.slice(css.indexOf(selector)).split('}')[0] ?? ''
  const read = (text: string) =>
    [...text.matchAll(/--([a-z-]+): (#[0-9a-f]{6});/g)].map((match) => [match[1] ?? '', match[2] ?? ''] as const)
  return new Map([...read(block(':root {')), ...(theme === 'night' ? read(block(":root[data-theme='night']")) : [])])
}

/** Relative luminance. Source: WCAG 2.2, definition of "relative luminance". */
function luminance(colour: string): number {
  const [red = 0, green = 0, blue = 0] = [1, 3, 5].map((at) => {
    const share = parseInt(colour.slice(at, at + 2), 16) / 255
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4
  })
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue
}

function contrast(a: string, b: string): number {
  const [light = 0, dark = 0] = [luminance(a), luminance(b)].sort((x, y) => y - x)
  return (light + 0.05) / (dark + 0.05)
}

describe('the colours', () => {
  it('are measured as the guideline measures them', () => {
    // Source: WCAG 2.2, definition of contrast ratio: black on white is 21:1. From memory: #777777 on white is 4.48:1.
    expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 5)
    expect(contrast('#777777', '#ffffff')).toBeCloseTo(4.48, 2)
  })

  it('can be read by day and by night', () => {
    // Source: WCAG 2.2 success criterion 1.4.3, level AA: 4.5:1 for text.
    for (const theme of ['day', 'night'] as const) {
      const roles = colours(theme)
      for (const ground of ['paper', 'sheet', 'wash']) {
        for (const text of ['ink', 'quiet', 'accent', 'good', 'doubt', 'stop']) {
          const found = contrast(roles.get(text) ?? '', roles.get(ground) ?? '')
          expect(found, `${text} on ${ground} by ${theme}`).toBeGreaterThanOrEqual(4.5)
        }
      }
      expect(contrast(roles.get('accent-ink') ?? '', roles.get('accent') ?? '')).toBeGreaterThanOrEqual(4.5)
    }
  })
})

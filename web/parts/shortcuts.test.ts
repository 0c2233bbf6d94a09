import { describe, expect, it } from 'vitest'
import { CROP, EVERYWHERE, FOLDERS, PLAYER, pressOf, REVIEW, shortcutOf, TABLE, type Shortcuts } from './shortcuts'

const pressesOf = (group: Shortcuts) => Object.values(group).flatMap(({ presses }) => presses)

describe('shortcuts', () => {
  it.each([
    ['a table', { ...TABLE }],
    ['the folders', { ...FOLDERS }],
    ['the crop window', { ...CROP }],
    ['the player', { ...PLAYER }],
  ])('of %s never share a press with those that work everywhere, nor with each other', (_, group: Shortcuts) => {
    const presses = [...pressesOf(EVERYWHERE), ...pressesOf(group)]
    expect(presses.toSorted()).toEqual([...new Set(presses)].toSorted())
  })

  it('of review and its player never share one either', () => {
    const presses = [EVERYWHERE, PLAYER, REVIEW].flatMap(pressesOf)
    expect(presses.toSorted()).toEqual([...new Set(presses)].toSorted())
  })

  it('are told by key, Ctrl and Shift, whatever the keyboard calls its Ctrl', () => {
    expect(pressOf({ key: 'Z', ctrlKey: true, shiftKey: true })).toBe('Ctrl+Shift+z')
    expect(pressOf({ key: 'z', metaKey: true })).toBe('Ctrl+z')
    // Source: UI Events KeyboardEvent key Values: `key` of a sign holds its Shift already.
    expect(shortcutOf(EVERYWHERE, { key: '?', shiftKey: true })).toBe('keys')
    expect(shortcutOf(PLAYER, { key: '+', shiftKey: true })).toBe('faster')
    expect(shortcutOf(PLAYER, { key: 'ArrowRight', shiftKey: true })).toBe('on')
  })

  it('mean nothing with Alt, with a Ctrl too many, or as capital letters', () => {
    expect(shortcutOf(EVERYWHERE, { key: 'n', altKey: true })).toBeUndefined()
    expect(shortcutOf(EVERYWHERE, { key: 'n', ctrlKey: true })).toBeUndefined()
    expect(shortcutOf(EVERYWHERE, { key: 'N', shiftKey: true })).toBeUndefined()
    expect(shortcutOf(REVIEW, { key: 'k', ctrlKey: true })).toBeUndefined()
  })

  it('take back with Ctrl Z, and do again with Ctrl Shift Z or Ctrl Y', () => {
    expect(shortcutOf(EVERYWHERE, { key: 'z', ctrlKey: true })).toBe('takeBack')
    expect(shortcutOf(EVERYWHERE, { key: 'Z', ctrlKey: true, shiftKey: true })).toBe('doAgain')
    expect(shortcutOf(EVERYWHERE, { key: 'y', ctrlKey: true })).toBe('doAgain')
  })
})

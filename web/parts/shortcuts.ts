/** What a key of the keyboard does: read by whoever answers to it, and by the list of keys. */
export interface Shortcut {
  /** How the key is called in the list. */
  readonly shown: string
  readonly what: string
  /** Presses as `pressOf` names them; none for what the browser or a part does by itself. */
  readonly presses: readonly string[]
}

export type Shortcuts = Readonly<Record<string, Shortcut>>

const withShift = (key: string) => [key, `Shift+${key}`]
/** Alone the row is chosen, with Shift all up to it, with Ctrl none. */
const toRow = (key: string) => [key, `Shift+${key}`, `Ctrl+${key}`, `Ctrl+Shift+${key}`]

/** They work on every page. */
export const EVERYWHERE = {
  station: {
    shown: '1 – 7',
    what: 'Go to a station of this production',
    presses: ['1', '2', '3', '4', '5', '6', '7'],
  },
  overview: { shown: '0', what: 'All productions', presses: ['0'] },
  next: { shown: 'n', what: 'Go to the next step; again: to its button, Enter presses it', presses: ['n'] },
  takeIn: { shown: 'c', what: 'Take in the card that waits: read it, copy it twice, prove it', presses: ['c'] },
  find: { shown: '/ or Ctrl K', what: 'Find anything', presses: ['/', 'Ctrl+k'] },
  keys: { shown: '?', what: 'These keys', presses: ['?'] },
  walk: { shown: 'Tab, Enter, Space', what: 'Through everything on the page, press, choose', presses: [] },
  takeBack: { shown: 'Ctrl Z', what: 'Take back what you changed last', presses: ['Ctrl+z'] },
  doAgain: {
    shown: 'Ctrl Shift Z',
    what: 'Do again what was taken back',
    presses: ['Ctrl+Shift+z', 'Ctrl+y', 'Ctrl+Shift+y'],
  },
  news: {
    shown: 'F8',
    what: 'To the news at the foot of the page; they stay while the focus is there',
    presses: [],
  },
  close: { shown: 'Escape', what: 'Close what is open', presses: [] },
} as const satisfies Shortcuts

/** A table that has the focus. */
export const TABLE = {
  down: {
    shown: '↓',
    what: 'The next row; with Shift choose up to it, with Ctrl go there alone',
    presses: toRow('ArrowDown'),
  },
  up: { shown: '↑', what: 'The row before', presses: toRow('ArrowUp') },
  pageDown: { shown: 'Page down', what: 'A page on', presses: toRow('PageDown') },
  pageUp: { shown: 'Page up', what: 'A page back', presses: toRow('PageUp') },
  first: { shown: 'Home', what: 'The first row', presses: toRow('Home') },
  last: { shown: 'End', what: 'The last row', presses: toRow('End') },
  open: { shown: 'Enter', what: 'Open the row', presses: ['Enter'] },
  choose: { shown: 'Space', what: 'Choose the row, or leave it', presses: [' '] },
  none: { shown: 'Escape', what: 'Choose nothing', presses: ['Escape'] },
  all: { shown: 'Ctrl A', what: 'Choose all rows', presses: ['Ctrl+a'] },
  copy: { shown: 'Ctrl C', what: 'Copy the chosen rows as text', presses: ['Ctrl+c'] },
} as const satisfies Shortcuts

/** A film that is played, wherever that is. */
export const PLAYER = {
  play: { shown: 'Space', what: 'Play, and hold', presses: [' '] },
  back: { shown: '←', what: 'One frame back; with Shift one second', presses: withShift('ArrowLeft') },
  on: { shown: '→', what: 'One frame on; with Shift one second', presses: withShift('ArrowRight') },
  faster: { shown: '+', what: 'Faster', presses: ['+', '='] },
  slower: { shown: '−', what: 'Slower', presses: ['-', '−'] },
} as const satisfies Shortcuts

/** The desk at which clips are looked at, beside those of the player. */
export const REVIEW = {
  loop: { shown: 'l', what: 'Play the range under the playhead again and again', presses: ['l'] },
  begin: { shown: 'i', what: 'Begin a range here; inside a range its beginning moves here', presses: ['i'] },
  end: { shown: 'o', what: 'End it here; inside a range its end moves here', presses: ['o'] },
  remove: { shown: 'x', what: 'Remove the range under the playhead', presses: ['x'] },
  before: { shown: '↑', what: 'The clip before', presses: withShift('ArrowUp') },
  after: { shown: '↓', what: 'The next clip', presses: withShift('ArrowDown') },
  undecided: { shown: 'Enter', what: 'The next clip that nobody has decided on', presses: ['Enter'] },
  keep: { shown: 'k', what: 'Keep; once more takes it back', presses: ['k'] },
  maybe: { shown: 'm', what: 'Maybe', presses: ['m'] },
  reject: { shown: 'r', what: 'Reject', presses: ['r'] },
  note: { shown: 't', what: 'Write a note; Escape leaves it', presses: ['t'] },
} as const satisfies Shortcuts

/** A sample that is played from a copy. */
export const SAMPLE = {
  play: { shown: 'Space', what: 'Play, and hold', presses: [' '] },
  before: { shown: '←', what: 'The piece before', presses: ['ArrowLeft'] },
  after: { shown: '→', what: 'The next piece', presses: ['ArrowRight'] },
  wrong: { shown: 'x', what: 'Something is wrong with it', presses: ['x'] },
} as const satisfies Shortcuts

/** A clip in the folders of the sorted view. */
export const FOLDERS = {
  down: { shown: '↓', what: 'The next clip', presses: withShift('ArrowDown') },
  up: { shown: '↑', what: 'The clip before', presses: withShift('ArrowUp') },
  aRoll: { shown: 'a', what: 'To A-roll', presses: ['a'] },
  bRoll: { shown: 'b', what: 'To B-roll', presses: ['b'] },
  rules: { shown: 'r', what: 'Leave it to the rules', presses: ['r'] },
} as const satisfies Shortcuts

/** The crop window on a frame of the master. */
export const CROP = {
  left: { shown: '←', what: 'Move it left by 2 pixels, with Shift by 40', presses: withShift('ArrowLeft') },
  right: { shown: '→', what: 'Move it right', presses: withShift('ArrowRight') },
  up: { shown: '↑', what: 'Move it up', presses: withShift('ArrowUp') },
  down: { shown: '↓', what: 'Move it down', presses: withShift('ArrowDown') },
  smaller: { shown: '+', what: 'Smaller: closer to the picture', presses: ['+', '='] },
  larger: { shown: '−', what: 'Larger', presses: ['-', '−'] },
} as const satisfies Shortcuts

/** What of a keyboard event is asked for. */
export type Press = Pick<KeyboardEvent, 'key'> &
  Partial<Pick<KeyboardEvent, 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey'>>

/**
 * A press by name, such as `n`, `Shift+ArrowUp` or `Ctrl+Shift+z`; a letter or sign without Ctrl holds its Shift in
 * itself.
 */
export function pressOf({ key, ctrlKey = false, metaKey = false, altKey = false, shiftKey = false }: Press): string {
  const isControl = ctrlKey || metaKey
  const saysShift = shiftKey && (isControl || (key.length > 1 && key !== 'Enter' && key !== 'Escape'))
  return [
    ...(altKey ? ['Alt'] : []),
    ...(isControl ? ['Ctrl'] : []),
    ...(saysShift ? ['Shift'] : []),
    isControl && key.length === 1 ? key.toLowerCase() : key,
  ].join('+')
}

/** Which shortcut of a group is pressed. */
export function shortcutOf<Name extends string>(
  group: Readonly<Record<Name, Shortcut>>,
  event: Press,
): Name | undefined {
  const press = pressOf(event)
  return (Object.keys(group) as Name[]).find((name) => group[name].presses.includes(press))
}

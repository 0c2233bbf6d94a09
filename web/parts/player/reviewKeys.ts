/** Keys of the desk at which clips are looked at; the player answers to the first six wherever it stands. */
export const REVIEW_KEYS = [
  ['Space', 'Play, and hold'],
  ['← →', 'One frame back or on; with Shift one second'],
  ['+ −', 'Faster, slower'],
  ['l', 'Play the range under the playhead again and again'],
  ['i, o', 'Begin a range here, end it here; inside a range they move its ends'],
  ['x', 'Remove the range under the playhead'],
  ['↑ ↓', 'The clip before, the next clip'],
  ['Enter', 'The next clip that nobody has decided on'],
  ['k, m, r', 'Keep, maybe, reject; once more takes it back'],
  ['t', 'Write a note; Escape leaves it'],
] as const

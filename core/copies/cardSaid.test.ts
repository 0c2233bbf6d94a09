import { expect, it } from 'vitest'
import type { ClearQuestion } from './clear'
import type { CopyFacts } from './mark'
import { REUSE_ON_THE_JOB } from './rule'
import { copy, played, said } from './testCopy'

const OLD = '2026-11-12T22:00:00Z'
const [first, second] = [copy('Slipway', played), copy('Tide 1')]
const card = { readerName: 'left slot', how: 'compared', compared: undefined, touched: false, swapsSeen: true } as const
const compared = {
  how: 'places',
  clips: 9,
  compared: 9,
  withCopies: 9,
  unreadable: 0,
  differing: 0,
  volumeNames: ['Slipway'],
} as const

it('says what is known of the card itself', () => {
  const cards: Partial<ClearQuestion>[] = [
    { looked: false },
    { cardDifference: 'The card in left slot has 3 files more.' },
    { cardKnown: card },
    { cardKnown: { ...card, compared } },
    { cardKnown: { ...card, how: 'ends', compared } },
    { cardKnown: { ...card, how: 'first-look', compared } },
    { cardKnown: { ...card, how: undefined } },
    { cardKnown: { ...card, how: undefined, compared } },
    { cardKnown: { ...card, how: undefined, touched: true } },
    { cardKnown: { ...card, how: undefined }, cardDifference: 'The card in left slot is another one.' },
    { cardKnown: { ...card, swapsSeen: false } },
    { thingsWrong: 1 },
    { thingsWrong: 2 },
    { filesLeftOut: 1 },
    { filesLeftOut: 2 },
    { atHome: false },
    { rule: REUSE_ON_THE_JOB },
    { rule: REUSE_ON_THE_JOB, cardInReader: true },
    { copies: [copy('Slipway'), second] },
    { copies: [first, copy('Tide 1', played)] },
  ]
  const usual = new Set(said({}).split('\n'))
  const own = cards.map((more) =>
    said(more)
      .split('\n')
      .filter((line) => !usual.has(line))
      .join('\n'),
  )
  expect(own.join('\n\n')).toMatchInlineSnapshot(`
    "Not yet: the card and the copies could not be read just now. Wait a moment.
    - The card and the copies could not be read just now. Wait a moment.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning.

    Not yet: the card in left slot has 3 files more.
    - The card in left slot has 3 files more.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning.



    + 9 of 9 clips were compared at one place with Slipway.

    + 9 of 9 clips were compared at one place with Slipway.



    Not yet: the card in left slot was put in again and is not compared with what was copied yet. Wait a moment.
    - The card in left slot was put in again and is not compared with what was copied yet. Wait a moment.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning.

    Not yet: the card in left slot was put in again and could not be compared with what was copied: connect a drive with a copy of it, or read the card whole.
    - The card in left slot was put in again and could not be compared with what was copied: connect a drive with a copy of it, or read the card whole.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning.

    Not yet: files on the card in left slot were rewritten, with the same size and time: read the card whole.
    - Files on the card in left slot were rewritten, with the same size and time: read the card whole.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning.

    Not yet: the card in left slot is another one.
    - The card in left slot is another one.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning.

    + Nothing tells Yendra when another card takes the place of this one in left slot: leave it in until you have formatted it, or scan it again.

    Not yet: 1 thing on the card is wrong and not settled: see Cards.
    - 1 thing on the card is wrong and not settled: see Cards.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning.

    Not yet: 2 things on the card are wrong and not settled: see Cards.
    - 2 things on the card are wrong and not settled: see Cards.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning.

    + 1 link, device entry or locked folder on the card is listed but not copied.

    + 2 links, device entries or locked folders on the card are listed but not copied.

    Not yet: you are away. Your rule lets cards be formatted at your own desk only; choose another one if you must.
    - You are away. Your rule lets cards be formatted at your own desk only; choose another one if you must.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning.

    + The card is out of the reader.

    Not yet: the card is still in the reader: take it out and play a clip from a copy.
    - The card is still in the reader: take it out and play a clip from a copy.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning.

    Not yet: no clip has been played from a copy yet.
    - No clip has been played from a copy yet.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning.

    + A clip was played from Slipway and Tide 1."
  `)
})

it('says what a card with the same content is good for', () => {
  const backup = copy('the backup card “Curlew B”')
  const backupCards: Partial<CopyFacts>[] = [
    {},
    { filesCopied: 0, filesVerified: 0 },
    { filesCopied: 8, filesVerified: 8, filesMismatched: 1 },
    { connected: false },
    { filesVerified: 0, filesVerifiedFromCache: 9 },
    { firstVerifiedAt: OLD },
  ]
  const own = backupCards.map((more) => said({ copies: [first], backupCards: [{ ...backup, ...more }] }))
  expect(own.join('\n\n')).toMatchInlineSnapshot(`
    "Yes: this card may be formatted, in the camera.
    + 2 verified copies (Slipway; the backup card “Curlew B”), read back from the medium; two are needed.
    + The backup card “Curlew B” counts as a copy while it lies in a reader: read whole 1 hour ago, equal to what was copied.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do it in the camera, rested, with this screen open. Formatting cannot be undone. Keep the backup card “Curlew B” as it is: it is one of the copies.

    Not yet: 1 verified copy (Slipway), read back from the medium; two are needed.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    - The backup card “Curlew B” holds the same files, but only samples of it were read: read it whole, and it counts as a copy.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning.

    Not yet: 1 verified copy (Slipway), read back from the medium; two are needed.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    - The backup card “Curlew B” is not what was copied: 1 file differs.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning.

    Not yet: 1 verified copy (Slipway), read back from the medium; two are needed.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    - The backup card “Curlew B” is in no reader now: it counts as a copy only where it can be seen.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning.

    Not yet: 1 verified copy (Slipway), read back from the medium; two are needed.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    - The backup card “Curlew B” could only be read through memory, perhaps not from the card.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning.

    Not yet: 1 verified copy (Slipway), read back from the medium; two are needed.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    - The backup card “Curlew B” was read 2 days ago: read it again, and it counts as a copy.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning."
  `)
  expect(said({ copies: [first, second], backupCards: [backup, copy('the backup card “Curlew C”')] }))
    .toMatchInlineSnapshot(`
    "Yes: this card may be formatted, in the camera.
    + 2 verified copies (Slipway; Tide 1), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do it in the camera, rested, with this screen open. Formatting cannot be undone."
  `)
  expect(said({ copies: [first], backupCards: [backup, copy('the backup card “Curlew C”', { connected: false })] }))
    .toMatchInlineSnapshot(`
      "Yes: this card may be formatted, in the camera.
      + 2 verified copies (Slipway; the backup card “Curlew B”), read back from the medium; two are needed.
      + The backup card “Curlew B” counts as a copy while it lies in a reader: read whole 1 hour ago, equal to what was copied.
      + A clip was played from Slipway.
      + You are at your own desk.
      Do it in the camera, rested, with this screen open. Formatting cannot be undone. Keep the backup card “Curlew B” as it is: it is one of the copies."
    `)
  const asked: Partial<ClearQuestion>[] = [
    { askedBackupCard: backup },
    { askedBackupCard: { ...backup, filesMismatched: 1 } },
    { askedBackupCard: { ...backup, filesMismatched: 2 } },
    { askedBackupCard: { ...backup, filesVerified: 8 } },
    { readFromBackupCard: true },
  ]
  expect(asked.map((more) => said(more).split('\n').slice(0, 2).join('\n')).join('\n\n')).toMatchInlineSnapshot(`
    "Yes: this card may be formatted, in the camera.
    + Every file of this card was read, and is what was copied.

    Not yet: this card is not what was copied: 1 file differs. Keep it.
    - This card is not what was copied: 1 file differs. Keep it.

    Not yet: this card is not what was copied: 2 files differ. Keep it.
    - This card is not what was copied: 2 files differ. Keep it.

    Not yet: what was copied was read from its backup card; of this card only samples were. Read it whole first.
    - What was copied was read from its backup card; of this card only samples were. Read it whole first.

    Not yet: what was copied was read from its backup card; of this card only samples were. Keep it.
    - What was copied was read from its backup card; of this card only samples were. Keep it."
  `)
})

it('says after the format what is left', () => {
  const formattedAt = '2026-11-15T08:00:00Z'
  const after = (copies: CopyFacts[], more: Partial<ClearQuestion> = {}) => said({ formattedAt, copies, ...more })
  const device = { fileSystem: 'x', disks: ['x'], known: true, pastCache: true }
  expect(
    [
      after([first, second]),
      after([]),
      after([copy('Slipway', { filesVerified: 8 })]),
      after([first, copy('Tide 1', { filesVerified: 8 })]),
      after([copy('Slipway', { connected: false })]),
      after([copy('Slipway', { device }), copy('Tide 1', { device })]),
      after([first], { backupCards: [copy('the backup card')] }),
      after([first], { backupCards: [copy('the backup card', { connected: false })] }),
      said({ saidButThere: 'left slot' }),
    ].join('\n\n'),
  ).toMatchInlineSnapshot(`
    "You said this card was formatted. The next scan starts a new load.


    This card was formatted, as you said, and no whole proved copy is left.
    Connect every drive that may hold its files, and read what is there again. Film nothing on the card: files of a formatted card can often be brought back by those who do that for a living.

    This card was formatted, as you said, and no whole proved copy is left.
    Connect every drive that may hold its files, and read what is there again. Film nothing on the card: files of a formatted card can often be brought back by those who do that for a living.

    This card was formatted, as you said, and one proved copy is all there is: on Slipway. Make another.
    Copy from Slipway to another drive.

    This card was formatted, as you said, and one proved copy is all there is: on Slipway. Make another.
    Copy from Slipway to another drive, once it is connected.

    This card was formatted, as you said, and its proved copies lie on one drive: on Slipway and Tide 1. Make another.
    Copy it to another drive: what breaks that one takes all of them along.

    You said this card was formatted. The next scan starts a new load.


    This card was formatted, as you said, and one proved copy is all there is: on Slipway. Make another.
    Copy from Slipway to another drive.

    Was this card formatted? Everything is still on it, in left slot.
    You said so. Take it back, or format it in the camera and scan it again. Perhaps another card was formatted: look at what lies beside it first."
  `)
})

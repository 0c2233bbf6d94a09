import { expect, it } from 'vitest'
import { clearToFormat, type ClearQuestion } from './clear'
import type { CopyFacts } from './mark'
import { copy, home, played } from './testCopy'

/** What stands on the page: the answer, then each reason, `+` where it is met. Sentences are read whole, so that one that is lost, doubled or in the wrong number is seen. */
function said(more: Partial<ClearQuestion>): string {
  const answer = clearToFormat({ ...home, ...more })
  const lines = [
    answer.sentence,
    ...answer.reasons.map((reason) => `${reason.met ? '+' : '-'} ${reason.sentence}`),
    answer.caution,
    ...answer.sampleFirst.map((volume) => `sample ${volume}`),
  ]
  return lines.join('\n')
}

const OLD = '2026-11-12T22:00:00Z'
const [first, second] = [copy('Slipway', played), copy('Tide 1')]
const withCopies = (...copies: CopyFacts[]) => said({ copies })
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

it('is yes with two proved copies, one of them played', () => {
  expect(said({})).toMatchInlineSnapshot(`
    "Yes: this card may be formatted, in the camera.
    + 2 verified copies (Slipway; Tide 1), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do it in the camera, rested, with this screen open. Formatting cannot be undone."
  `)
})

it('says how many copies count, and what they were read from', () => {
  expect(withCopies()).toMatchInlineSnapshot(`
    "Not yet: no volume holds a verified copy yet; two are needed.
    - No volume holds a verified copy yet; two are needed.
    - No clip has been played from a copy yet.
    + You are at your own desk.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning."
  `)
  expect(withCopies(first)).toMatchInlineSnapshot(`
    "Not yet: 1 verified copy (Slipway), read back from the medium; two are needed.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning."
  `)
  expect(withCopies(first, second, copy('Tide 2'))).toMatchInlineSnapshot(`
    "Yes: this card may be formatted, in the camera.
    + 3 verified copies (Slipway; Tide 1; Tide 2), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do it in the camera, rested, with this screen open. Formatting cannot be undone."
  `)
  const memory = { filesVerified: 8, filesVerifiedFromCache: 1 }
  expect(withCopies(first, copy('Tide 1', memory))).toMatchInlineSnapshot(`
    "Not yet: Tide 1 could only be read back through memory, perhaps not from the medium: that counts as copied.
    - Tide 1 could only be read back through memory, perhaps not from the medium: that counts as copied.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning."
  `)
  expect(said({ copies: [first, copy('Tide 1', memory)], rules: { ...home.rules, acceptMemory: true } }))
    .toMatchInlineSnapshot(`
    "Yes: this card may be formatted, in the camera.
    + 2 verified copies (Slipway; Tide 1), read back, perhaps from memory, which your rule accepts; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do it in the camera, rested, with this screen open. Formatting cannot be undone."
  `)
  // A copy that is not whole was read through memory too; that is not what it lacks.
  expect(withCopies(first, second, copy('Tide 2', { ...memory, filesCopied: 8 }))).toMatchInlineSnapshot(`
    "Yes: this card may be formatted, in the camera.
    + 2 verified copies (Slipway; Tide 1), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do it in the camera, rested, with this screen open. Formatting cannot be undone."
  `)
})

it('says which copies cannot be seen now', () => {
  const away = { connected: false }
  expect(withCopies(first, copy('Tide 1', away))).toMatchInlineSnapshot(`
    "Yes: this card may be formatted, in the camera.
    + 2 verified copies (Slipway; Tide 1, not seen now, proved 1 hour ago), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do it in the camera, rested, with this screen open. Formatting cannot be undone."
  `)
  expect(withCopies(copy('Slipway', { ...played, ...away }), copy('Tide 1', away))).toMatchInlineSnapshot(`
    "Not yet: no copy can be seen now: connect Slipway or Tide 1.
    - No copy can be seen now: connect Slipway or Tide 1.
    + 2 verified copies (Slipway, not seen now, proved 1 hour ago; Tide 1, not seen now, proved 1 hour ago), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning."
  `)
})

it('says what of a proof that became old is to be done', () => {
  const old = { firstVerifiedAt: OLD }
  expect(withCopies(first, copy('Tide 1', old))).toMatchInlineSnapshot(`
    "Not yet: Tide 1 was proved 2 days ago: read a sample of it first.
    - Tide 1 was proved 2 days ago: read a sample of it first.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning.
    sample Tide 1"
  `)
  expect(withCopies(first, copy('Tide 1', { firstVerifiedAt: '2026-11-11T22:00:00Z' }), copy('Tide 2', old)))
    .toMatchInlineSnapshot(`
    "Not yet: Tide 1 and Tide 2 were proved 3 days ago: read a sample of them first.
    - Tide 1 and Tide 2 were proved 3 days ago: read a sample of them first.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning.
    sample Tide 1
    sample Tide 2"
  `)
  expect(withCopies(first, copy('Tide 1', { ...old, connected: false }))).toMatchInlineSnapshot(`
    "Not yet: 1 verified copy (Slipway), read back from the medium; two are needed.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    - Tide 1 cannot be seen and was proved more than 24 hours ago: connect it.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning."
  `)
  expect(withCopies(first, copy('Tide 1', { ...old, connected: false }), copy('Tide 2', { ...old, connected: false })))
    .toMatchInlineSnapshot(`
    "Not yet: 1 verified copy (Slipway), read back from the medium; two are needed.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    - Tide 1 and Tide 2 cannot be seen and were proved more than 24 hours ago: connect them.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning."
  `)
  expect(withCopies(first, second, copy('Tide 2', old), copy('Tide 3', { ...old, connected: false })))
    .toMatchInlineSnapshot(`
    "Yes: this card may be formatted, in the camera.
    + Tide 2 was proved 2 days ago: read a sample of it first.
    + 2 verified copies (Slipway; Tide 1), read back from the medium; two are needed.
    + Tide 3 cannot be seen and was proved more than 24 hours ago: connect it.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do it in the camera, rested, with this screen open. Formatting cannot be undone.
    sample Tide 2"
  `)
  expect(withCopies(first, copy('Tide 1', { ...old, readAgainAt: '2026-11-14T21:00:00Z' }))).toMatchInlineSnapshot(`
    "Yes: this card may be formatted, in the camera.
    + 2 verified copies (Slipway; Tide 1), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do it in the camera, rested, with this screen open. Formatting cannot be undone."
  `)
})

it('counts nothing that was proved before the records came back from an older copy', () => {
  const olderSince = '2026-11-14T22:30:00Z'
  const after = { firstVerifiedAt: '2026-11-14T22:30:00Z' }
  expect(said({ olderSince })).toMatchInlineSnapshot(`
    "Not yet: Yendra’s records were restored from an older backup: what was found out since is missing. Read Slipway and Tide 1 again, whole, before they count.
    - Yendra’s records were restored from an older backup: what was found out since is missing. Read Slipway and Tide 1 again, whole, before they count.
    - No volume holds a verified copy yet; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning."
  `)
  expect(said({ olderSince, copies: [copy('Slipway', { ...played, ...after }), second] })).toMatchInlineSnapshot(`
    "Not yet: Yendra’s records were restored from an older backup: what was found out since is missing. Read Tide 1 again, whole, before it counts.
    - Yendra’s records were restored from an older backup: what was found out since is missing. Read Tide 1 again, whole, before it counts.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning."
  `)
  expect(said({ olderSince, copies: [copy('Slipway', { ...played, ...after }), copy('Tide 2', after), second] }))
    .toMatchInlineSnapshot(`
    "Yes: this card may be formatted, in the camera.
    + Yendra’s records were restored from an older backup: what was found out since is missing. Read Tide 1 again, whole, before it counts.
    + 2 verified copies (Slipway; Tide 2), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do it in the camera, rested, with this screen open. Formatting cannot be undone."
  `)
})

it('says which copies lie on one drive', () => {
  const device = { fileSystem: 'x', disks: ['x'], known: true, pastCache: true }
  const unknown = { fileSystem: 'y', disks: [], known: false, pastCache: true }
  const image = { fileSystem: 'z', disks: ['name:loop0'], known: true, pastCache: true }
  expect(withCopies(copy('Slipway', { ...played, device }), copy('Tide 1', { device }))).toMatchInlineSnapshot(`
    "Not yet: Slipway and Tide 1 lie on the same drive: they count as one copy.
    + 2 verified copies (Slipway; Tide 1), read back from the medium; two are needed.
    - Slipway and Tide 1 lie on the same drive: they count as one copy.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning."
  `)
  expect(withCopies(copy('Slipway', { ...played, device }), copy('Tide 1', { device }), copy('Tide 2')))
    .toMatchInlineSnapshot(`
    "Yes: this card may be formatted, in the camera.
    + 3 verified copies (Slipway; Tide 1; Tide 2), read back from the medium; two are needed.
    + Slipway and Tide 1 lie on the same drive: they count as one copy.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do it in the camera, rested, with this screen open. Formatting cannot be undone."
  `)
  expect(withCopies(copy('Slipway', { ...played, device: unknown }), second)).toMatchInlineSnapshot(`
    "Not yet: the system cannot tell whether Slipway and Tide 1 are different drives: say so if you know, or use another volume.
    + 2 verified copies (Slipway; Tide 1), read back from the medium; two are needed.
    - The system cannot tell whether Slipway and Tide 1 are different drives: say so if you know, or use another volume.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning."
  `)
  expect(said({ cardStanding: { device: first.device, connected: true } })).toMatchInlineSnapshot(`
    "Not yet: Slipway lies on the same drive as the card: that is no copy.
    + 2 verified copies (Slipway; Tide 1), read back from the medium; two are needed.
    - Slipway lies on the same drive as the card: that is no copy.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning."
  `)
  expect(
    said({
      copies: [copy('Slipway', { ...played, device }), copy('Tide 1', { device })],
      cardStanding: { device, connected: true },
    }),
  ).toMatchInlineSnapshot(`
    "Not yet: Slipway and Tide 1 lie on the same drive as the card: that is no copy.
    + 2 verified copies (Slipway; Tide 1), read back from the medium; two are needed.
    - Slipway and Tide 1 lie on the same drive as the card: that is no copy.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning."
  `)
  expect(withCopies(copy('Slipway', { ...played, device: image }), second)).toMatchInlineSnapshot(`
    "Yes: this card may be formatted, in the camera.
    + 2 verified copies (Slipway; Tide 1), read back from the medium; two are needed.
    + Disk images count as drives of their own here, for a trial.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do it in the camera, rested, with this screen open. Formatting cannot be undone."
  `)
  expect(withCopies(copy('Slipway', { ...played, device: undefined }), second)).toMatchInlineSnapshot(`
    "Not yet: the system cannot tell whether Slipway and Tide 1 are different drives: say so if you know, or use another volume.
    + 2 verified copies (Slipway; Tide 1), read back from the medium; two are needed.
    - The system cannot tell whether Slipway and Tide 1 are different drives: say so if you know, or use another volume.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning."
  `)
})

it('says what is wrong with a copy, also beside two that are whole', () => {
  const troubles: Partial<CopyFacts>[] = [
    { filesMismatched: 1 },
    { filesInConflict: 2 },
    { filesMissing: 1 },
    { filesMissing: 2 },
    { filesDoubted: 1, doubtedBytes: 5e6 },
    { filesDoubted: 2, doubtedBytes: 5e6 },
    { filesDoubted: 1, doubtedBytes: 5e6, connected: false },
    { mirrorLost: true, filesMissing: 9, filesDoubted: 9 },
    { mounted: ['CLIPS', 'AUDIO'], filesMissing: 1 },
    { filesVerified: 7, filesVerifiedFromCache: 2 },
    { filesVerified: 7 },
  ]
  const alone = troubles.map((trouble) =>
    withCopies(first, copy('Tide 1', trouble)).split('\n').slice(1, -1).join('\n'),
  )
  expect(alone.join('\n\n')).toMatchInlineSnapshot(`
    "- Tide 1: some files differ from the card. Settle them first.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.

    - Tide 1: some files differ from the card. Settle them first.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.

    - Tide 1: 1 file is gone or no longer as it was proved. Copy again.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.

    - Tide 1: 2 files are gone or no longer as they were proved. Copy again.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.

    - Tide 1: 1 file (5.00 MB) may have been replaced since it was proved. It is being read again by itself.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.

    - Tide 1: 2 files (5.00 MB) may have been replaced since they were proved. They are being read again by themselves.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.

    - Tide 1: 1 file (5.00 MB) may have been replaced since it was proved. Connect it: then they are read again.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.

    - Tide 1: the copy was there and is gone. Copy again, or find out who moved it.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.

    - Tide 1: 1 file is gone or no longer as it was proved. Copy again.
    - Tide 1: another file system is mounted inside the copy, at “CLIPS”. What lies there is on another drive and counts for nothing here.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.

    - Tide 1 could only be read back through memory, perhaps not from the medium: that counts as copied.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.

    - 1 verified copy (Slipway), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk."
  `)
  const beside = troubles.map((trouble) => {
    const lines = withCopies(first, second, copy('Tide 2', trouble)).split('\n')
    return lines
      .filter((line) => line.includes('Tide 2') || line.startsWith('Yes') || line.startsWith('Not'))
      .join('\n')
  })
  expect(beside.join('\n\n')).toMatchInlineSnapshot(`
    "Not yet: Tide 2: some files differ from the card. Settle them first.
    - Tide 2: some files differ from the card. Settle them first.

    Not yet: Tide 2: some files differ from the card. Settle them first.
    - Tide 2: some files differ from the card. Settle them first.

    Yes: this card may be formatted, in the camera.
    + Tide 2: 1 file is gone or no longer as it was proved. Copy again.

    Yes: this card may be formatted, in the camera.
    + Tide 2: 2 files are gone or no longer as they were proved. Copy again.

    Yes: this card may be formatted, in the camera.
    + Tide 2: 1 file (5.00 MB) may have been replaced since it was proved. It is being read again by itself.

    Yes: this card may be formatted, in the camera.
    + Tide 2: 2 files (5.00 MB) may have been replaced since they were proved. They are being read again by themselves.

    Yes: this card may be formatted, in the camera.
    + Tide 2: 1 file (5.00 MB) may have been replaced since it was proved. Connect it: then they are read again.

    Yes: this card may be formatted, in the camera.
    + Tide 2: the copy was there and is gone. Copy again, or find out who moved it.

    Yes: this card may be formatted, in the camera.
    + Tide 2: 1 file is gone or no longer as it was proved. Copy again.
    + Tide 2: another file system is mounted inside the copy, at “CLIPS”. What lies there is on another drive and counts for nothing here.

    Yes: this card may be formatted, in the camera.
    + Tide 2 could only be read back through memory, perhaps not from the medium: that counts as copied.

    Yes: this card may be formatted, in the camera."
  `)
  expect(withCopies(first, copy('Tide 1', { mirrorLost: true }), copy('Tide 2', { mirrorLost: true })))
    .toMatchInlineSnapshot(`
    "Not yet: Tide 1, Tide 2: the copy was there and is gone. Copy again, or find out who moved it.
    - Tide 1, Tide 2: the copy was there and is gone. Copy again, or find out who moved it.
    - 1 verified copy (Slipway), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do not format, delete or rewrite when you are very tired: this list is still here in the morning."
  `)
})

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
    { policy: 'reuse-on-the-job' },
    { policy: 'reuse-on-the-job', cardInReader: true },
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

    Not yet: you are away. Cards are formatted at home only; change that in the policy if you must.
    - You are away. Cards are formatted at home only; change that in the policy if you must.
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
  const twin = copy('the backup card “Curlew B”')
  const twins: Partial<CopyFacts>[] = [
    {},
    { filesCopied: 0, filesVerified: 0 },
    { filesCopied: 8, filesVerified: 8, filesMismatched: 1 },
    { connected: false },
    { filesVerified: 0, filesVerifiedFromCache: 9 },
    { firstVerifiedAt: OLD },
  ]
  const own = twins.map((more) => said({ copies: [first], twins: [{ ...twin, ...more }] }))
  expect(own.join('\n\n')).toMatchInlineSnapshot(`
    "Yes: this card may be formatted, in the camera.
    + 2 verified copies (Slipway; the backup card “Curlew B”), read back from the medium; two are needed.
    + The backup card “Curlew B” counts as a copy while it lies in a reader: read whole 1 hour ago, equal to what was copied.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do it in the camera, rested, with this screen open. Formatting cannot be undone. Keep the backup card “Curlew B” as it is: it is one of the two copies.

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
  expect(said({ copies: [first, second], twins: [twin, copy('the backup card “Curlew C”')] })).toMatchInlineSnapshot(`
    "Yes: this card may be formatted, in the camera.
    + 2 verified copies (Slipway; Tide 1), read back from the medium; two are needed.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do it in the camera, rested, with this screen open. Formatting cannot be undone."
  `)
  expect(said({ copies: [first], twins: [twin, copy('the backup card “Curlew C”', { connected: false })] }))
    .toMatchInlineSnapshot(`
    "Yes: this card may be formatted, in the camera.
    + 2 verified copies (Slipway; the backup card “Curlew B”), read back from the medium; two are needed.
    + The backup card “Curlew B” counts as a copy while it lies in a reader: read whole 1 hour ago, equal to what was copied.
    + A clip was played from Slipway.
    + You are at your own desk.
    Do it in the camera, rested, with this screen open. Formatting cannot be undone. Keep the backup card “Curlew B” as it is: it is one of the two copies."
  `)
  const asked: Partial<ClearQuestion>[] = [
    { askedTwin: twin },
    { askedTwin: { ...twin, filesMismatched: 1 } },
    { askedTwin: { ...twin, filesMismatched: 2 } },
    { askedTwin: { ...twin, filesVerified: 8 } },
    { readFromTwin: true },
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
      after([first], { twins: [copy('the backup card')] }),
      after([first], { twins: [copy('the backup card', { connected: false })] }),
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

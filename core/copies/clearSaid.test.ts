import { expect, it } from 'vitest'
import type { CopyFacts } from './mark'
import { copy, home, played, said } from './testCopy'

const OLD = '2026-11-12T22:00:00Z'
const [first, second] = [copy('Slipway', played), copy('Tide 1')]
const withCopies = (...copies: CopyFacts[]) => said({ copies })

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
  expect(said({ copies: [first, copy('Tide 1', memory)], rule: { ...home.rule, acceptMemory: true } }))
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

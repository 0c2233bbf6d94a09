import { beforeEach, describe, expect, it, vi } from 'vitest'
import { EDIT_HEADER, editsApi } from '../../../contract/edits'

const kept = new Map<string, string>()
vi.stubGlobal('sessionStorage', {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => kept.set(key, value),
})

const edit = (id: string, turn = 0) => ({ id, title: `“${id}” was changed.`, turn })
/** The store as another load of the page begins it. */
const loaded = async () => {
  vi.resetModules()
  return import('./edits')
}

beforeEach(() => kept.clear())

describe('what can be taken back', () => {
  it('goes back and again in turn, and a new change ends what could be done again', async () => {
    const store = await loaded()
    const last = () => JSON.parse(kept.get('yendra-edits') ?? '{}') as { back: object[]; again: object[] }
    store.noteEdit(edit('a'))
    store.noteEdit(edit('b'))
    expect(last()).toEqual({ back: [edit('a'), edit('b')], again: [] })
    // Taken back: the server answers with the change that does it again.
    store.dropEdit('b')
    store.noteEdit(edit('b back', 1))
    expect(last()).toEqual({ back: [edit('a')], again: [edit('b back', 1)] })
    store.dropEdit('b back')
    store.noteEdit(edit('b again', 2))
    expect(last()).toEqual({ back: [edit('a'), edit('b again', 2)], again: [] })
    store.dropEdit('b again')
    store.noteEdit(edit('b back', 3))
    store.noteEdit(edit('c'))
    expect(last()).toEqual({ back: [edit('a'), edit('c')], again: [] })
    const after = await loaded()
    after.noteEdit(edit('d'))
    expect(last().back).toEqual([edit('a'), edit('c'), edit('d')])
  })

  it('is what was done last, also where that is still on its way', async () => {
    const store = await loaded()
    store.noteEdit(edit('a'))
    const [one, other] = [store.editBegins(), store.editBegins()]
    const meant = store.editsSettled().then(() => store.lastEdit('back')?.id)
    store.noteEdit(edit('b'))
    one()
    one()
    store.noteEdit(edit('c'))
    other()
    expect(await meant).toBe('c')
    expect(await store.editsSettled().then(() => 'at once')).toBe('at once')
  })

  it('is what was sent last, in the very moment its answer comes', async () => {
    const store = await loaded()
    const { call } = await import('./api')
    store.noteEdit(edit('before'))
    let answer: (response: Response) => void = () => {}
    vi.stubGlobal('fetch', () => new Promise<Response>((done) => (answer = done)))
    const sent = call(editsApi.takeBack, { params: { id: 'any' } })
    const meant = store.editsSettled().then(() => store.lastEdit('back')?.id)
    answer(
      new Response(null, { status: 204, headers: { [EDIT_HEADER]: encodeURIComponent(JSON.stringify(edit('sent'))) } }),
    )
    expect(await meant).toBe('sent')
    await sent
    // One that comes to nothing holds nobody up.
    vi.stubGlobal('fetch', () => Promise.reject(new Error('down')))
    await expect(call(editsApi.takeBack, { params: { id: 'any' } })).rejects.toThrow('Nothing is lost')
    expect(await store.editsSettled().then(() => store.lastEdit('back')?.id)).toBe('sent')
  })
})

import { open, type FileHandle } from 'node:fs/promises'
import { join } from 'node:path'
import { benchApi } from '../../contract/bench'
import { chartApi } from '../../contract/chart'
import { cardsApi, type ClipView, type LoadView } from '../../contract/cards'
import { copiesApi } from '../../contract/copies'
import { addressOf } from '../../contract/endpoint'
import { exportsApi } from '../../contract/exports'
import { gearApi } from '../../contract/gear'
import { productionsApi } from '../../contract/productions'
import { proxiesApi } from '../../contract/proxies'
import { reviewApi, type ReviewBody } from '../../contract/review'
import { shelfApi } from '../../contract/shelf'
import { shootApi } from '../../contract/shoot'
import { sortedApi } from '../../contract/sorted'
import { storageApi } from '../../contract/storage'
import { DESTINATIONS } from '../../core/exports/destination'
import { USUAL_CHOICE } from '../../core/exports/plan'
import { middleWindow } from '../../core/shoot/framing'
import { KEPT_CHART } from './keptChart'
import type { Person } from './person'
import { STORY } from './storyNames'

/**
 * What happened since the garboard was filmed, each step done as a person does it, and done once: what is there already
 * is not done again, so that a story that was cut goes on.
 */
export async function tellStory(person: Person): Promise<void> {
  const { rows } = await person.call(productionsApi.all, {}, { query: { limit: 200 } })
  const production = rows.find((one) => one.title === STORY.title)
  if (!production) throw new Error(`There is no production “${STORY.title}” any more.`)
  const story = new Story(person, production.id)
  for (const card of STORY.cards) await story.takeIn(card)
  await story.formatFirst()
  await story.review()
  await story.makeProxies()
  await story.render()
  await story.shelve()
  await bringKeptChart(person)
}

/** What was filmed before Yendra was there stands on a chart that was kept by hand. */
async function bringKeptChart(person: Person): Promise<void> {
  if ((await person.call(chartApi.kept, {})).length > 0) return
  await person.call(chartApi.bringKeptChart, {}, { body: KEPT_CHART })
}

/** Over a production of that title. */
class Story {
  readonly #person: Person
  readonly #id: string

  constructor(person: Person, id: string) {
    this.#person = person
    this.#id = id
  }

  async #device(name: string) {
    const found = (await this.#person.call(benchApi.all, {})).devices.find((one) => one.name === name)
    if (!found) throw new Error(`There is no ${name} any more.`)
    return found
  }

  async #loadOf(label: string) {
    return (await this.#person.call(cardsApi.loads, { id: this.#id })).rows.find((one) => one.label === label)
  }

  async #clipsOf(load: LoadView): Promise<readonly ClipView[]> {
    return (await this.#person.call(cardsApi.clips, { id: this.#id }, { query: { loadId: load.id, limit: 100 } })).rows
  }

  async #needed(label: string) {
    const load = await this.#loadOf(label)
    if (!load) throw new Error(`“${label}” was taken away.`)
    return load
  }

  /** Scans a card, and copies all but the recorder's to two drives, one of which is taken elsewhere afterwards. */
  async takeIn(card: string): Promise<void> {
    const reader = await this.#device(STORY.reader)
    if (!(await this.#loadOf(card))) {
      if (reader.card !== card) await this.#person.call(benchApi.insert, { id: reader.id }, { body: { card } })
      await this.#seen(reader.id, card)
      await this.#person.work(
        () =>
        this.#person.call(cardsApi.look, { id: reader.id }, { body: { productionId: this.#id, label: card, copy: false, stay: null } }), // prettier-ignore
      )
    }
    const load = await this.#needed(card)
    await this.#sayGear(load, card)
    if (card === STORY.cards[2]) return
    if ((await this.#marksOf(load)).filter(({ mark }) => mark >= 2).length < 2) {
      const drives = [await this.#device(STORY.edit), await this.#device(STORY.away)]
      for (const drive of drives) if (!drive.plugged) await this.#person.call(benchApi.plug, { id: drive.id })
      const volumeIds = drives.map((drive) => drive.id)
      await this.#person.work(
        () =>
        this.#person.call(copiesApi.copy, { id: load.id }, { body: { volumeIds, setAside: false, from: null, decisions: null } }), // prettier-ignore
      )
    }
    const unplayed = (await this.#marksOf(load)).filter(({ mark }) => mark < 3).map(({ volumeId }) => volumeId)
    const [first] = (await this.#clipsOf(load)).filter((clip) => clip.widthPx !== null)
    if (first) await this.#play(load, first, unplayed)
  }

  /** How far each copy of a load has come. */
  async #marksOf(load: LoadView) {
    const { rows } = await this.#person.call(copiesApi.all, { id: this.#id })
    return rows.find((one) => one.loadId === load.id)?.copies ?? []
  }

  /** Which card of the gear book it is, and which camera filmed it. */
  async #sayGear(load: LoadView, card: string): Promise<void> {
    const { cameras, cards } = await this.#person.call(gearApi.all, {})
    const cardId = cards.find((one) => one.name === card)?.id ?? null
    const cameraId = cameras.find((one) => card.startsWith(one.name))?.id ?? null
    await this.#person.call(shootApi.setLoadGear, { id: load.id }, { body: { cardId, cameraId } })
  }

  /** Waits until the observer has seen the card. */
  async #seen(readerId: string, card: string): Promise<void> {
    for (let turn = 0; turn < 100; turn += 1) {
      const reader = (await this.#person.call(cardsApi.readers, {})).find((one) => one.id === readerId)
      if (reader?.state === 'card' && reader.stay !== null) return
      await new Promise((done) => setTimeout(done, 200))
    }
    throw new Error(`“${card}” was not seen in its reader.`)
  }

  async #play(load: LoadView, clip: ClipView, volumeIds: readonly string[]): Promise<void> {
    for (const volumeId of volumeIds) {
      await this.#person.watch(addressOf(copiesApi.play, { id: load.id, volumeId, clipId: clip.id }))
      await this.#person.call(
        copiesApi.played,
        { id: load.id },
        { body: { volumeId, clipId: clip.id, asPreview: false, seconds: 3 } },
      )
    }
  }

  /** The first card is clear, and formatted; then the second drive goes to where it is kept. */
  async formatFirst(): Promise<void> {
    const load = await this.#needed(STORY.cards[0])
    const reader = await this.#device(STORY.reader)
    const copies = (await this.#person.call(copiesApi.all, { id: this.#id })).rows.find((one) => one.loadId === load.id)
    if (copies?.formattedAt === null) {
      await this.#person.call(benchApi.insert, { id: reader.id }, { body: { card: STORY.cards[0] } })
      await this.#seen(reader.id, STORY.cards[0])
      await this.#person.patiently()
      await this.#person.call(
        copiesApi.formatted,
        { id: load.id },
        { body: { anyway: false, reason: '', twinId: null } },
      )
    }
    await this.#person.call(benchApi.insert, { id: reader.id }, { body: { card: STORY.cards[2] } })
    const away = await this.#device(STORY.away)
    if (away.plugged) await this.#person.call(benchApi.unplug, { id: away.id })
  }

  async review(): Promise<void> {
    const names: { id: string; name: string }[] = []
    const shots = await this.#person.call(shootApi.shots, { id: this.#id })
    for (const card of STORY.cards)
      for (const clip of await this.#clipsOf(await this.#needed(card))) {
        const said = SAID[clip.name.replace(/\.\w+$/, '')]
        if (!said) continue
        await this.#person.call(
          reviewApi.set,
          { id: clip.id },
          {
            body: {
              shotId: shots.find((shot) => shot.name === said.name)?.id ?? null,
              ranges: [],
              note: '',
              ...said.review,
            },
          },
        )
        if (said.name !== undefined) names.push({ id: clip.id, name: said.name })
      }
    await this.#person.call(reviewApi.setNames, { id: this.#id }, { body: { names } })
    const view = await this.#person.call(sortedApi.one, { id: this.#id })
    if (view.last !== null) return
    const volumeId = (await this.#device(STORY.edit)).id
    const { template, which } = view.settings
    const { cameras } = await this.#person.call(gearApi.all, {})
    const main = cameras.find((one) => STORY.cards[0].startsWith(one.name))
    const aRoll = main ? [{ by: 'camera' as const, is: main.id }] : []
    const links = view.canLink === 'reflink' ? 'reflink' : 'copy'
    await this.#person.call(sortedApi.set, { id: this.#id }, { body: { volumeId, template: [...template], aRoll, which, links, editBegun: false } }) // prettier-ignore
    await this.#person.work(() => this.#person.call(sortedApi.sort, { id: this.#id }))
  }

  /** Proxies of all clips; one of them is damaged on its drive afterwards, and found by comparing them again. */
  async makeProxies(): Promise<void> {
    const edit = await this.#device(STORY.edit)
    const { rows } = await this.#person.call(proxiesApi.all, { id: this.#id }, { query: { limit: 100 } })
    if (rows.every((row) => row.made === null)) {
      await this.#person.patiently()
      const { taskIds } = await this.#person.call(
        proxiesApi.make,
        {},
        { body: { productionId: this.#id, volumeId: edit.id } },
      )
      for (const taskId of taskIds) await this.#person.ended(taskId)
    }
    const made = (await this.#person.call(proxiesApi.all, { id: this.#id }, { query: { limit: 100 } })).rows.filter(
      (row) => row.made,
    )
    const last = made.at(-1)?.made
    if (!last || made.some((row) => row.made?.state === 'differs')) return
    await damage(join(edit.folder, last.path))
    await this.#person.work(() => this.#person.call(proxiesApi.recheck, { id: this.#id }, { body: { all: true } }))
  }

  async render(): Promise<void> {
    const there = (await this.#person.call(exportsApi.deliverables, { id: this.#id })).rows
    const volumeId = (await this.#device(STORY.edit)).id
    for (const [card, name, destinationId] of FILMS) {
      const destination = DESTINATIONS.find((one) => one.id === destinationId)
      const clip = (await this.#clipsOf(await this.#needed(card))).find((one) => one.name.startsWith(name))
      if (!destination || clip?.widthPx == null || clip.heightPx === null) continue
      if (there.some((one) => one.clipName === clip.name && one.destinationName === destination.name)) continue
      const window = middleWindow({ widthPx: clip.widthPx, heightPx: clip.heightPx }, destination)
      const body = { clipId: clip.id, destinationId, volumeId, window, ...USUAL_CHOICE }
      await this.#person.work(() => this.#person.call(exportsApi.render, {}, { body }))
    }
  }

  async shelve(): Promise<void> {
    const bags = await this.#person.call(shelfApi.bags, { id: this.#id })
    const film = (await this.#person.call(exportsApi.deliverables, { id: this.#id })).rows.find((one) => one.pass)
    if (bags.rows.length > 0 || !film) return
    const volumes = (await this.#person.call(storageApi.all, { id: this.#id })).volumes
    const volumeId = volumes.find((one) => one.name === STORY.shelf)?.id ?? ''
    await this.#person.work(() =>
      this.#person.call(shelfApi.shelve, {}, { body: { deliverableId: film.id, volumeId, why: '' } }),
    )
  }
}

/** What is said of the clips; ranges in frames. */
const SAID: Readonly<Record<string, { readonly review: Partial<ReviewBody>; readonly name?: string }>> = {
  C0061: {
    review: { verdict: 'keep', ranges: [{ from: 10, to: 60 }], note: 'Hands and iron, sharp to the end.' },
    name: 'Garboard, first seam',
  },
  C0062: {
    review: {
      verdict: 'keep',
      ranges: [
        { from: 0, to: 40 },
        { from: 62, to: 100 },
      ],
    },
    name: 'Garboard, cotton in',
  },
  C0063: { review: { verdict: 'maybe', note: 'Plane flies over at the end.' } },
  C0064: { review: { verdict: 'reject', note: 'Out of focus.' } },
  PLOV0121: { review: { verdict: 'keep' }, name: 'Mallet from below' },
  PLOV0122: { review: { verdict: 'maybe' } },
  FLD20001: { review: { verdict: 'keep', note: 'Sound for the first seam.' } },
}

/** Films that were cut: from which clip, for where. */
const FILMS = [
  ['Curlew C', 'C0061', 'wide-watch'],
  ['Plover C', 'PLOV0123', 'tall-short'],
] as const

/** Overwrites a little in the middle of a file, as a bad block does; its size and its time stay. */
async function damage(path: string): Promise<void> {
  let file: FileHandle | undefined
  try {
    file = await open(path, 'r+')
    const { size, atime, mtime } = await file.stat()
    await file.write(Buffer.alloc(Math.min(2000, size >> 3), 0x5a), 0, undefined, size >> 1)
    await file.utimes(atime, mtime)
  } finally {
    await file?.close()
  }
}

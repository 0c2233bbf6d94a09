import type { RequestHandler, Response } from 'express'
import pg from 'pg'
import { NEWS_HEADER, type ServerEvent } from '../../contract/tasks'
import type { Db } from '../db/connection'
import { CHANNELS, task, taskView, type News } from '../db/queries/tasks'
import { log } from '../log'
import type { ScanDesk, Scanned } from './scanDesk'

const KEEP_ALIVE_MS = 20_000

const textOf = (event: ServerEvent) => `data: ${JSON.stringify(event)}\n\n`

/** Passes news from PostgreSQL on to every open browser as server-sent events. */
export class EventStream {
  readonly #open = new Set<Response>()
  /** A server that was started anew begins to count anew. */
  readonly #began = Date.now()
  #count = 0

  constructor(
    readonly db: Db,
    readonly looks: ScanDesk,
  ) {}

  /** `onLost`: the connection is gone, and no page would be told anything any more. */
  async listen(url: string, onLost: (error: Error) => void): Promise<pg.Client> {
    const client = new pg.Client({ connectionString: url })
    client.on('error', onLost)
    client.on('notification', ({ channel, payload }) => {
      const message: unknown = JSON.parse(payload ?? '{}')
      if (channel === CHANNELS.looked) this.looks.hear(message as Scanned)
      else void this.#pass(message as News).catch((error: unknown) => log.error(error, 'news'))
    })
    await client.connect()
    for (const channel of [CHANNELS.news, CHANNELS.looked]) await client.query(`listen ${channel}`)
    return client
  }

  async #pass(news: News): Promise<void> {
    this.#count += 1
    if (this.#open.size === 0) return
    if (news.kind === 'changed') return this.#send(news)
    const row = await task(this.db, news.id)
    if (row) this.#send({ kind: 'task', task: taskView(row) })
  }

  #send(event: ServerEvent): void {
    const text = textOf(event)
    for (const res of this.#open) res.write(text)
  }

  get #news(): string {
    return `${this.#began}.${this.#count}`
  }

  /** Every answer says how much news came before it: whoever has heard no more since knows that it still holds. */
  readonly stamp: RequestHandler = (_req, res, next) => {
    res.setHeader(NEWS_HEADER, this.#news)
    next()
  }

  readonly route: RequestHandler = (_req, res) => {
    res.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', Connection: 'keep-alive' })
    res.write('retry: 1000\n\n')
    res.write(textOf({ kind: 'began', news: this.#news }))
    this.#open.add(res)
    const beat = setInterval(() => res.write(': still here\n\n'), KEEP_ALIVE_MS)
    res.on('close', () => {
      clearInterval(beat)
      this.#open.delete(res)
    })
  }

  close(): void {
    for (const res of this.#open) res.end()
  }
}

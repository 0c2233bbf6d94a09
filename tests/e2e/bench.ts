import { execFileSync } from 'node:child_process'
import { lstatSync, lutimesSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, type APIRequestContext, type Locator, type Page } from '@playwright/test'
import type { BenchView } from '../../contract/bench'
import type { Page as ListPage } from '../../contract/page'
import type { ProductionView } from '../../contract/productions'
import type { StorageView } from '../../contract/storage'
import type { TaskView } from '../../contract/tasks'
import { STATE, test } from './house'

export const volumeFolder = (name: string) => join(STATE, 'demo/bench/volumes', name.toLowerCase().replaceAll(' ', '-'))
export const cardFolder = (name: string) => join(STATE, 'demo/bench/cards', name.toLowerCase().replaceAll(' ', '-'))

/** The cameras filmed the same again a little later: other files, so that every card is a load of its own here. */
export function filmAgain(card: string): void {
  for (const name of readdirSync(cardFolder(card), { recursive: true, encoding: 'utf8' })) {
    const path = join(cardFolder(card), name)
    const later = new Date(lstatSync(path).mtimeMs + 7 * 60_000)
    lutimesSync(path, later, later)
  }
}

/** Runs one of Debian's programs and returns what it printed; throws when it fails. */
export const debian = (program: string, args: readonly string[], cwd?: string, input?: Buffer) =>
  execFileSync(program, args, { cwd, input, encoding: 'latin1', stdio: [input ? 'pipe' : 'ignore', 'pipe', 'pipe'] })

export const runState = () =>
  JSON.parse(readFileSync(join(STATE, 'run.json'), 'utf8')) as { processes: Record<string, number> }

const get = async <T>(request: APIRequestContext, path: string) =>
  (await (await request.get(`/api${path}`)).json()) as T

export async function productionId(request: APIRequestContext, title: string): Promise<string> {
  const found = (await get<ListPage<ProductionView>>(request, '/productions?limit=200')).rows.find(
    (one) => one.title === title,
  )
  if (!found) throw new Error(`There is no production ${title}`)
  return found.id
}

/** What Storage shows, asked for any production. */
export async function storage(request: APIRequestContext): Promise<StorageView> {
  const [any] = (await get<ListPage<ProductionView>>(request, '/productions')).rows
  return get<StorageView>(request, `/productions/${any?.id}/storage`)
}

export async function volumeIds(request: APIRequestContext, ...names: string[]): Promise<string[]> {
  const { volumes } = await storage(request)
  return names.map((name) => volumes.find((volume) => volume.name === name)?.id ?? `no ${name}`)
}

export async function deviceId(request: APIRequestContext, name: string): Promise<string> {
  return (await get<BenchView>(request, '/bench')).devices.find((device) => device.name === name)?.id ?? `no ${name}`
}

/** Changes something as the pages do. */
export async function post(request: APIRequestContext, path: string, data: object = {}) {
  const response = await request.post(`/api${path}`, { data, headers: { 'Content-Type': 'application/json' } })
  return {
    status: response.status(),
    body: response.status() === 204 ? undefined : ((await response.json()) as Record<string, unknown>),
  }
}

/** Starts a task and returns its id. */
export async function startTask(request: APIRequestContext, path: string, data: object): Promise<string> {
  const { status, body } = await post(request, path, data)
  expect(status).toBe(202)
  return String(body?.taskId)
}

export const taskNow = (request: APIRequestContext, id: string) => get<TaskView>(request, `/tasks/${id}`)

export async function taskEnd(request: APIRequestContext, id: string): Promise<TaskView> {
  await expect
    .poll(async () => (await taskNow(request, id)).state, { timeout: 240_000, intervals: [200] })
    .toMatch(/done|failed|stopped/)
  return taskNow(request, id)
}

/** Collects what the browser complains about; a page that works says nothing. */
export function complaints(page: Page): string[] {
  const found: string[] = []
  page.on('console', (message) => {
    if (message.type() === 'error' || message.type() === 'warning') found.push(message.text())
  })
  page.on('pageerror', (error) => found.push(error.message))
  return found
}

/** Opens a choice and takes one of its options. */
export async function choose(page: Page, choice: Locator, option: string): Promise<void> {
  await choice.click()
  await page.getByRole('option', { name: option, exact: true }).click()
}

/** What a press gives as a file, kept among the results of the test; its path. */
export async function saved(page: Page, button: Locator, as: string): Promise<string> {
  const [download] = await Promise.all([page.waitForEvent('download'), button.click()])
  const path = test.info().outputPath(as)
  await download.saveAs(path)
  return path
}

/** A production in the table of the overview. */
export const production = (page: Page, title: string): Locator =>
  page.locator(`[data-production="${title}"]`).getByRole('link').first()

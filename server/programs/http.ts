import { createServer } from 'node:http'
import { resolve } from 'node:path'
import { BenchPlaces } from '../bench/benchPlaces'
import { openDatabase, openForAnswers } from '../db/connection'
import { databaseUrl, hostName } from '../home'
import { createApp } from '../http/app'
import { EventStream } from '../http/events'
import { ScanDesk } from '../http/scanDesk'
import { openBoss } from '../enqueue/enqueue'
import { log } from '../log'
import { registerSimulated } from '../media/mediumOf'

/** Longer than this nobody waits for a page. */
const ANSWER_MS = 12_000

/** Who asks again after a while must not meet a connection that is being closed in that very moment. */
const KEPT_MS = 65_000

const url = databaseUrl()
const listening = process.env.YENDRA_LISTEN ?? '127.0.0.1'
const key = process.env.YENDRA_KEY
if (listening !== '127.0.0.1' && !key) {
  log.fatal('Listening elsewhere than on this machine needs a key. Start with "npm start -- --listen=ADDRESS".')
  process.exit(1)
}
const migrated = await openDatabase(url)
await migrated.destroy()
const db = openForAnswers(url, ANSWER_MS)
const boss = await openBoss(url, (error) => log.error(error, 'queue'), ANSWER_MS)
registerSimulated(new BenchPlaces())
const looks = new ScanDesk(db)
const events = new EventStream(db, looks)
// The start command starts this program again, and the pages come back by themselves.
const news = await events.listen(url, (error) => {
  log.fatal(error, 'news')
  process.exit(1)
})
const server = createServer(
  createApp({ db, boss, host: hostName(), looks }, events, {
    webFolder: resolve(process.env.YENDRA_WEB ?? 'dist/web'),
    listening,
    key,
  }),
)
server.keepAliveTimeout = KEPT_MS
server.listen(Number(process.env.PORT ?? 4600), listening, () => process.send?.('ready'))
server.on('error', (error) => {
  log.fatal(error, 'cannot listen')
  process.exit(1)
})

const stop = async () => {
  events.close()
  server.close()
  server.closeAllConnections()
  await Promise.race([
    Promise.all([boss.stop({ graceful: false }), news.end(), db.destroy()]),
    new Promise((done) => setTimeout(done, 1500)),
  ])
  process.exit(0)
}
process.on('SIGTERM', () => void stop())
// Whoever started us ends a program that does not answer.
process.on('message', (message) => {
  if (message === 'ping') process.send?.('pong')
})
// Ctrl-C reaches the whole group; the start command decides when to end us.
process.on('SIGINT', () => undefined)
process.on('disconnect', () => void stop())

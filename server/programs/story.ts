import { setPriority } from 'node:os'
import { join } from 'node:path'
import { openDatabase } from '../db/connection'
import { benchCard } from '../db/queries/bench'
import { readStory, writeStory } from '../db/queries/settings'
import { tellChanged } from '../db/queries/tasks'
import { makeOtherCards } from '../demo/media'
import { Person } from '../demo/person'
import { tellStory } from '../demo/story'
import { STORY } from '../demo/storyNames'
import { storyCards } from '../demo/storyCards'
import { benchFolder, databaseUrl } from '../home'
import { log } from '../log'

/**
 * Films what the demo has beyond its first evening, and lets a production be worked on as a person does it. It goes on
 * where it was cut, and never ahead of what somebody orders.
 */
// What somebody does at the same time comes first.
setPriority(10)
const db = await openDatabase(databaseUrl())

async function film(day: string, today: string | null): Promise<void> {
  const root = join(benchFolder(), 'cards')
  const cards = storyCards(root, new Date(day))
  const all = cards.flatMap((card) => card.clips)
  let filmed = 0
  for (const { name, folder, story, clips } of cards) {
    if (!(await benchCard(db, name))) {
      for (const clip of clips) {
        await say(`The demo is still being filmed: ${filmed} of ${all.length} clips.`)
        await clip.make()
        filmed += 1
      }
      await db.insertInto('benchCard').values({ name, folder, story }).execute()
      await tellChanged(db, 'bench')
    } else filmed += clips.length
  }
  await say(`The demo is still being worked on: “${STORY.title}” is taken in and edited.`)
  await tellStory(new Person(process.env.YENDRA_URL ?? '', process.env.YENDRA_KEY))
  await say('The demo is still being filmed: cards for practice.')
  const others = await makeOtherCards(root, new Date(today ?? day))
  await db
    .insertInto('benchCard')
    .values([...others])
    .onConflict((at) => at.column('name').doNothing())
    .execute()
}

async function say(sentence: string | null): Promise<void> {
  await writeStory(db, { ...(await readStory(db)), says: sentence, done: sentence === null })
  await tellChanged(db, 'tasks')
}

const quit = () => process.exit(0)
process.on('SIGTERM', quit)
process.on('SIGINT', () => undefined)
process.on('disconnect', quit)
process.send?.('ready')
const { day, today, done } = await readStory(db)
// A demo that was made without one has none.
if (day !== null && !done)
  try {
    await film(day, today)
    await say(null)
    await tellChanged(db, 'bench')
  } catch (error) {
    // What is there stays, and everything can be used; the next start goes on.
    log.warn(error, 'the demo is not finished')
    const why = error instanceof Error ? error.message : 'it stopped'
    await writeStory(db, { ...(await readStory(db)), says: `The demo is not finished: ${why}`, done: false })
    await tellChanged(db, 'tasks')
  }
await db.destroy()
quit()

import { QueryClient, QueryObserver } from '@tanstack/react-query'
import { expect, it } from 'vitest'
import { askAgain } from './askAgain'

it('news that comes while the first answer is on its way is not lost', async () => {
  const client = new QueryClient()
  let told = 'before the change'
  const waiting: (() => void)[] = []
  const observer = new QueryObserver(client, {
    queryKey: ['productions', 'one'],
    queryFn: async () => {
      const read = told
      await new Promise<void>((resolve) => waiting.push(resolve))
      return read
    },
  })
  const seen: unknown[] = []
  const leave = observer.subscribe(({ data }) => void seen.push(data))
  await expect.poll(() => waiting.length).toBe(1)
  told = 'after it'
  void askAgain(client, { queryKey: ['productions'] })
  waiting[0]?.()
  await expect.poll(() => waiting.length).toBe(2)
  waiting[1]?.()
  await expect.poll(() => seen.at(-1)).toBe('after it')
  leave()
})

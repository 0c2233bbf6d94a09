import { expect } from '@playwright/test'
import { ownHouse, test } from './house'

ownHouse({ isKept: true })

test('the demo is made', async ({ request }) => {
  expect((await request.get('/api/productions')).status()).toBe(200)
})

import { expect, it } from 'vitest'
import { onOneDrive } from './oneDrive'

it('counts volumes as one drive only where each lies with every other', () => {
  const on = (name: string, ...sharesDriveWith: string[]) => ({ name, sharesDriveWith })
  expect(onOneDrive([on('Slipway')])).toBe(true)
  expect(onOneDrive([on('Slipway', 'Tide 1'), on('Tide 1', 'Slipway')])).toBe(true)
  expect(onOneDrive([on('Slipway'), on('Tide 1')])).toBe(false)
  expect(onOneDrive([])).toBe(true)
  // Two pairs of names that do not say the same are no one drive.
  expect(onOneDrive([on('Slipway', 'Tide 1'), on('Tide 1')])).toBe(false)
  expect(onOneDrive([on('Slipway', 'Tide 1'), on('Tide 1', 'Slipway'), on('Tide 2')])).toBe(false)
})

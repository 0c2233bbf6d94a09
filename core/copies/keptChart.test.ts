import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readKeptChart, readDay, rolesByHead, type KeptReading } from './keptChart'

const HEAD = ['Client', 'Project', 'Date', 'Card', 'Size', 'Slipway', 'Grey 2']
const reading: KeptReading = {
  roles: ['client', 'production', 'day', 'load', 'bytes', 'volume Slipway', 'volume Grey 2'],
  bareUnit: 'GB',
  dayOrder: 'day first',
  repeats: true,
}

describe('a chart that was kept by hand', () => {
  it('is read row by row, with sizes and days as people write them', () => {
    const { lines, faults } = readKeptChart(
      [
        HEAD,
        ['own channel', 'Mast day', '14.11.2025', 'Curlew A', '118,5', 'x', '–'],
        ['', '', '', 'Curlew B', '64 GiB', '2025-11-15', 'yes'],
        ['', '', '', '', '', '', ''],
        ['', 'Sail loft', '3/4/2026', 'Field 1', '', 'no', ''],
      ],
      reading,
    )
    expect(faults).toEqual([])
    expect(lines).toEqual([
      {
        ...{ client: 'own channel', production: 'Mast day', shootOn: '2025-11-14', load: 'Curlew A', camera: '' },
        ...{ sizeBytes: 118_500_000_000, formatted: '', copies: [{ name: 'Slipway', said: 'x' }] },
      },
      {
        ...{ client: 'own channel', production: 'Mast day', shootOn: '2025-11-14', load: 'Curlew B', camera: '' },
        ...{ sizeBytes: 64 * 1024 ** 3, formatted: '' },
        copies: [
          { name: 'Slipway', said: '2025-11-15' },
          { name: 'Grey 2', said: 'yes' },
        ],
      },
      {
        ...{ client: 'own channel', production: 'Sail loft', shootOn: '2026-04-03', load: 'Field 1', camera: '' },
        ...{ sizeBytes: null, formatted: '', copies: [] },
      },
    ])
  })

  it('names every row that cannot be understood, by its number in the file', () => {
    const bad = ['', 'Mast day', '31.02.2025', 'Curlew A', '', '', '']
    const { lines, faults } = readKeptChart(
      [
        HEAD,
        bad,
        ['', 'Mast day', '', 'Curlew A', '1,000 GB', '', ''],
        ['', 'Mast day', '2025-11-14', '', '', '', ''],
        ['', 'Mast day', '', 'Curlew A', '1 TB', '', ''],
        ['', 'Mast day', '', 'Curlew A', '2 TB', '', ''],
        ['', '', '', 'a', 'b', 'c', 'd', 'e'],
      ],
      { ...reading, repeats: false },
    )
    expect(lines.map((line) => line.sizeBytes)).toEqual([1e12])
    expect(faults.map((fault) => fault.sentence)).toEqual([
      'Row 2: “31.02.2025” is no day. Write it as 2026-11-14.',
      'Row 3: “1,000 GB” is no size. Does 1,000 mean 1000 or 1? Write it so.',
      'Row 4: it names no card or load.',
      'Row 6: “Curlew A” of “Mast day” stands above already, with another size.',
      'Row 7: it has 8 cells, and the first row 7.',
    ])
    expect(readKeptChart([HEAD, ...Array.from({ length: 10_000 }, () => bad)], reading).faults).toHaveLength(10_000)
  })

  it('joins rows of one load where each names another drive', () => {
    const { lines } = readKeptChart(
      [
        ['Project', 'Card', 'Drive'],
        ['Mast day', 'Curlew A', 'Slipway'],
        ['Mast day', 'curlew a', 'Tide 1; Grey 2'],
      ],
      { ...reading, roles: ['production', 'load', 'on'] },
    )
    expect(lines.map((line) => line.copies.map((copy) => copy.name))).toEqual([['Slipway', 'Tide 1', 'Grey 2']])
  })

  it('guesses its columns by their heads and by the drives that are known', () => {
    expect(rolesByHead([...HEAD, 'Formatted?', 'Notes', 'Camera'], ['slipway', 'Tide 1'])).toEqual([
      ...['client', 'production', 'day', 'load', 'bytes', 'volume slipway', 'none', 'formatted', 'none', 'camera'],
    ])
  })

  it('says yes or no of any text, and never loses a row', () => {
    fc.assert(
      fc.property(fc.array(fc.array(fc.string({ maxLength: 12 }), { minLength: 7, maxLength: 8 })), (rows) => {
        const { lines, faults } = readKeptChart([HEAD, ...rows], reading)
        const said = rows.filter((row) => row.some((cell) => cell.trim() !== ''))
        expect(lines.length + faults.length).toBeLessThanOrEqual(said.length)
        expect(lines.length + faults.length > 0).toBe(said.length > 0)
        expect(new Set(faults.map((fault) => fault.row)).size).toBe(faults.length)
      }),
    )
  })

  it('reads a day in the order that was chosen, and only days that there are', () => {
    expect(readDay('11/14/2026', 'month first')).toBe('2026-11-14')
    expect(readDay('11/14/2026', 'day first')).toBeUndefined()
    expect(readDay('14.11.2026', 'month first')).toBe('2026-11-14')
    expect(readDay('14/11.2026', 'day first')).toBeUndefined()
  })
})

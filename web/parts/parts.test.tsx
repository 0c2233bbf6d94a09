import { renderToStaticMarkup } from 'react-dom/server'
import { describe, expect, it } from 'vitest'
import { MARK_WORDS, type Mark as MarkValue } from '../../core/copies/mark'
import { Answer } from './Answer'
import { ApiProblem } from './asking/api'
import { Bar } from './Bar'
import { CheckTable } from '../trade/CheckTable'
import { Field } from './controls/Field'
import { Mark } from '../trade/Mark'
import { sortedBy } from './table/sorted'
import { Trouble } from './Trouble'

const MARKS: readonly MarkValue[] = [0, 1, 2, 3]

/** What is drawn of a mark, without colours and words. */
const shapeOf = (mark: MarkValue) =>
  /<svg[^>]*>(.*)<\/svg>/.exec(renderToStaticMarkup(<Mark mark={mark} label="spoken" />))?.[1]

describe('the mark', () => {
  it('has a shape of its own for each step, told apart without colour', () => {
    expect(new Set(MARKS.map(shapeOf)).size).toBe(4)
    for (const mark of MARKS) expect(shapeOf(mark)).not.toMatch(/#[0-9a-f]{3,6}|var\(|rgb/)
  })

  it('is read out by its number and word', () => {
    for (const mark of MARKS) {
      expect(renderToStaticMarkup(<Mark mark={mark} />)).toContain(`aria-label="${MARK_WORDS[mark]}, ${mark} of 3"`)
    }
  })
})

describe('the top of a screen', () => {
  it('has the answer as its one heading, then the reason', () => {
    const markup = renderToStaticMarkup(<Answer why="Because it was read back.">Yes.</Answer>)
    expect(markup).toMatch(/<h1[^>]*>Yes\.<\/h1>.*Because it was read back\./)
  })
})

describe('what went wrong', () => {
  it('is said with its title and sentence, and not at all when all is well', () => {
    expect(renderToStaticMarkup(<Trouble error={null} />)).toBe('')
    const problem = new ApiProblem({
      type: '/problems/conflict',
      title: 'Not possible now',
      status: 409,
      detail: 'Tide 1 is not connected.',
    })
    const markup = renderToStaticMarkup(<Trouble error={problem} />)
    expect(markup).toContain('role="alert"')
    expect(markup).toContain('Not possible now')
    expect(markup).toContain('Tide 1 is not connected.')
  })

  it('stands under its field, tied to it', () => {
    const markup = renderToStaticMarkup(<Field label="Frame rate" fault="Write it as 25." readOnly value="fast" />)
    const described = /aria-describedby="([^"]+)"/.exec(markup)?.[1]
    expect(markup).toContain('aria-invalid="true"')
    expect(markup).toContain(`id="${described}"`)
    expect(markup).toMatch(/<label[^>]*>Frame rate<\/label>/)
    expect(renderToStaticMarkup(<Field label="Frame rate" readOnly value="25" />)).not.toContain('aria-invalid')
  })
})

describe('rows that the page itself sorts', () => {
  const rows = [
    { name: 'Tide 10', free: 9 },
    { name: 'ebb', free: 100 },
    { name: 'Slipway', free: 9 },
  ]
  const names = (value: (row: (typeof rows)[number]) => string | number, down: boolean) =>
    sortedBy(rows, value, down).map((row) => row.name)

  it('stand by size where it is a figure, by letters where it is a word, and equal ones as they were', () => {
    expect(names((row) => row.free, false)).toEqual(['Tide 10', 'Slipway', 'ebb'])
    expect(names((row) => row.free, true)).toEqual(['ebb', 'Tide 10', 'Slipway'])
    expect(names((row) => row.name, false)).toEqual(['ebb', 'Slipway', 'Tide 10'])
  })
})

describe('checks and bars', () => {
  it('tell by word and not only by colour what passes', () => {
    const checks = [
      { name: 'Frames', wanted: '100', found: '100', pass: true },
      { name: 'Bars', wanted: 'none', found: 'top 30 px', pass: false },
    ]
    const markup = renderToStaticMarkup(<CheckTable checks={checks} />)
    expect(markup.match(/aria-label="passes"/g)).toHaveLength(1)
    expect(markup.match(/aria-label="fails"/g)).toHaveLength(1)
  })

  it('keep a bar inside its box whatever the shares', () => {
    const markup = renderToStaticMarkup(
      <Bar
        label="too much"
        parts={[
          { share: 1.7, tone: 'solid' },
          { share: -1, tone: 'light' },
        ]}
      />,
    )
    expect(markup).toContain('width:100%')
    expect(markup).toContain('width:0%')
    expect(markup).toContain('aria-label="too much"')
  })
})

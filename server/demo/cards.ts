import { join } from 'node:path'

export interface DemoCard {
  readonly name: string
  readonly folder: string
  readonly story: string
}

/** A rig of three small cameras, of which one did not start with the others. */
export const LENSES = [1, 2, 3] as const
export const ODD_LENS = 3
export const RIG_TAKES = [
  [10, 15, 3],
  [10, 40, 5],
  [11, 20, 2],
] as const

/** The cards of the demo, each in a folder of its own. */
export const demoCards = (root: string): DemoCard[] => [
  {
    name: 'Curlew A',
    folder: join(root, 'curlew-a'),
    story: 'The main camera’s card of the day: three UHD clips, one number missing.',
  },
  {
    name: 'Plover A',
    folder: join(root, 'plover-a'),
    story: 'The action camera’s card: one good clip, one without an index, one of 0 bytes.',
  },
  { name: 'Field 1', folder: join(root, 'field-1'), story: 'The sound recorder: two takes and its settings.' },
  {
    name: 'Odd names',
    folder: join(root, 'odd-names'),
    story: 'Names with stray bytes and line ends, an empty file, a link: they all arrive, the link is reported.',
  },
  {
    name: 'Curlew B',
    folder: join(root, 'curlew-b'),
    story: 'Clips, their camera proxies, thumbnails and settings in folders side by side; one take has no proxy.',
  },
  {
    name: 'Heron A',
    folder: join(root, 'heron-a'),
    story: 'Frames a file each from the pole camera: one run of 48, two of which are missing.',
  },
  {
    name: 'Teal',
    folder: join(root, 'teal'),
    story: 'The phone, whose clock is four hours ahead of the cameras.',
  },
  {
    name: 'Curlew A slot 2',
    folder: join(root, 'curlew-a-slot-2'),
    story: 'The second slot of the main camera, which wrote the same three clips as Curlew A.',
  },
  ...LENSES.map((lens) => ({
    name: `Pole ${lens}`,
    folder: join(root, `pole-${lens}`),
    story:
      `Lens ${lens} of the rig on the pole: ` +
      `${lens === ODD_LENS ? 'it missed the second of three takes' : 'three takes'}.`,
  })),
]

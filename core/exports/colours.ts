import { colourTags } from '../media/colour'
import type { VideoTrack } from '../media/facts'

/** What a picture without colour tags may be taken for. */
export const COLOUR_CHOICES = ['stated', 'bt709', 'bt601-525', 'bt601-625'] as const
export type ColourChoice = (typeof COLOUR_CHOICES)[number]

/** The colours of a master as they are converted from, in the names of ITU-T H.273 as coders write them. */
export interface MasterColours {
  readonly matrix: string
  readonly primaries: string
  /** Curves that are shown alike are one: BT.601, BT.709 and BT.2020 share theirs. */
  readonly transfer: 'bt709' | 'iec61966-2-1' | 'linear'
  readonly range: 'limited' | 'full'
  /** What had to be taken for granted, in words; `undefined` when the file states everything. */
  readonly assumed: string | undefined
}

type Family = { readonly matrix: string; readonly primaries: string; readonly name: string }

const FAMILIES: Record<Exclude<ColourChoice, 'stated'>, Family> = {
  bt709: { matrix: 'bt709', primaries: 'bt709', name: 'BT.709' },
  'bt601-525': { matrix: 'smpte170m', primaries: 'smpte170m', name: 'BT.601 of 525 lines' },
  'bt601-625': { matrix: 'bt470bg', primaries: 'bt470bg', name: 'BT.601 of 625 lines' },
}

/** Common practice, no source: from 720 lines or 1280 columns on it is high definition. */
const HD_LINES = 720
const HD_COLUMNS = 1280

/**
 * What colours are taken for where a file says nothing: high definition is BT.709, standard definition BT.601 of 625
 * lines where its height is a multiple of 288, else of 525. Common practice, no source.
 */
export function usualColours({ widthPx, heightPx, rotationDegrees }: VideoTrack): Exclude<ColourChoice, 'stated'> {
  const turned = Math.abs(rotationDegrees) % 180 === 90
  const [columns, lines] = turned ? [heightPx, widthPx] : [widthPx, heightPx]
  if (lines >= HD_LINES || columns >= HD_COLUMNS) return 'bt709'
  return lines % 288 === 0 ? 'bt601-625' : 'bt601-525'
}

/** Whether matrix and primaries both stand in the file. */
export const coloursStated = ({ matrix, primaries, chroma }: VideoTrack): boolean =>
  primaries !== undefined && (matrix !== undefined || chroma === 'RGB')

/** Why a picture cannot be brought to BT.709 yet, or `undefined` when it can. Source of the curves: ITU-R BT.2100. */
export function colourFault(video: VideoTrack): string | undefined {
  const name = { smpte2084: 'PQ', 'arib-std-b67': 'HLG' }[video.transfer ?? '']
  return name
    ? `${name} (ITU-R BT.2100) has to be tone-mapped for a BT.709 destination, which is not done here ` +
        'yet. Only retagged it would look wrong. Bring it to BT.709 in the editing program and use that ' +
        'file as the master.'
    : undefined
}

/** From what the colours of a master are converted: as stated; as chosen, or as is usual, where nothing is. */
export function masterColours(video: VideoTrack, choice: ColourChoice): MasterColours {
  const range = video.range ?? 'limited'
  const transfer = video.transfer === 'iec61966-2-1' || video.transfer === 'linear' ? video.transfer : 'bt709'
  if (choice === 'stated' && coloursStated(video))
    return { matrix: video.matrix ?? 'gbr', primaries: video.primaries ?? '', transfer, range, assumed: undefined }
  const family = FAMILIES[choice === 'stated' ? usualColours(video) : choice]
  const rgb = video.chroma === 'RGB'
  const says = (video.matrix ?? video.primaries) !== undefined
  const partly = choice === 'stated' && says
  // A file that states one of the two means the other alike.
  const stated = video.matrix && video.matrix !== 'gbr' ? video.matrix : video.primaries
  const matrix = rgb ? 'gbr' : partly ? matrixFor(stated, family) : family.matrix
  const primaries = partly ? (video.primaries ?? primariesFor(stated, family)) : family.primaries
  return {
    matrix,
    primaries,
    transfer,
    range,
    assumed: partly
      ? `The colours are stated in part (${colourTags(video)}); the rest is assumed to match.`
      : says
        ? `The file states ${colourTags(video)}; you chose ${family.name}.`
        : `The colours are not stated; treated as ${family.name}.`,
  }
}

const matrixFor = (stated: string | undefined, family: Family) =>
  stated === 'bt2020' ? 'bt2020nc' : stated === 'smpte432' ? 'bt709' : (stated ?? family.matrix)

const primariesFor = (stated: string | undefined, family: Family) =>
  stated?.startsWith('bt2020') ? 'bt2020' : stated && stated !== 'gbr' ? stated : family.primaries

/** Whether anything is converted at all. */
export const isConverted = ({ matrix, primaries, transfer, range }: MasterColours): boolean =>
  matrix !== 'bt709' || primaries !== 'bt709' || transfer !== 'bt709' || range !== 'limited'

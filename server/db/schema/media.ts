import type { ColumnType, Generated, GeneratedAlways } from 'kysely'
import type { FileRole } from '../../../core/cards/files/clips'
import type { TimeRange, Verdict } from '../../../core/cards/review/review'
import type { SoundCompared } from '../../../core/media/compareSound'
import type { MediaFacts } from '../../../core/media/facts'
import type { ProxyState } from '../../../core/proxies/check'
import type { Given, Json, JsonOrNull, Now } from './columns'

/** What cards hold as media, the takes that it makes, what is said of them, and what was made of them. */
export interface MediaTables {
  mediaFile: {
    id: Generated<string>
    loadId: string
    productionId: string
    entryId: number
    pathText: string
    name: string
    sizeBytes: number
    probe: JsonOrNull<MediaFacts>
    trouble: string | null
    /** What the reading program itself said of it, where it cannot be read. */
    toolLines: ColumnType<string[], string | undefined, string>
    cut: string | null
    hasPicture: boolean
    pictureMade: boolean
    /** It lay on the card at the latest scan; follows its entry by a trigger. */
    onCard: Given<boolean>
    /** On the card, or gone from it with a proved copy, and no file beside another; follows its entry by a trigger. */
    shown: Given<boolean>
    /** Another media file of the card whose content it seems to have. */
    sameAs: Given<string | null>
    /** Its take began in another file of the same card. */
    goesOn: Given<boolean>
    /** One that was made before its sound was compared is to be checked. */
    proxy: Given<'none' | ProxyState>
    /** It is not edited without one; follows `without_proxy` by a trigger. */
    proxyWanted: Given<boolean>
    /** What a proxy of it will have. */
    proxyBytes: Given<number>
    sortPath: GeneratedAlways<string>
    seconds: GeneratedAlways<number>
    lengthMs: GeneratedAlways<number>
    /** As it is shown: what the file says, moved by `shiftMs`; kept by a trigger. */
    recordedAt: GeneratedAlways<string>
    shiftMs: Given<number>
    /** When it was recorded, and its path: as it was filmed. */
    filmedOrder: GeneratedAlways<string>
    framePx: GeneratedAlways<number>
    rate: GeneratedAlways<number>
    codec: GeneratedAlways<string>
    hasVideo: GeneratedAlways<boolean>
    playable: GeneratedAlways<boolean>
    /** In trouble, cut, or without a picture that could be made. */
    wrong: GeneratedAlways<boolean>
  }
  /** What an editor sees as one; its id is that of its first file. */
  take: {
    id: string
    /** Media files that go on from one another, on one card or on several. */
    parts: Given<number>
    /** The take of a rig's first lens that filmed the same, itself for that one; `null` in no rig. */
    rigTakeId: Given<string | null>
  }
  /** A file of a card, and what it is in the one take that it belongs to. */
  takeFile: {
    entryId: number
    takeId: string
    /** What was read of it, where it is media. */
    mediaFileId: string | null
    /** The take is known by it; other files stand beside. */
    main: boolean
    role: FileRole
    /** Which of the take's parts it is or stands beside, from 1. */
    part: Given<number>
    /** Sets of sound are numbered from 1, frames from 0 with their holes. */
    number: number | null
  }
  /** What a person says of a media file, and so of its part of a take; a row that is not there says nothing. */
  review: {
    mediaFileId: string
    verdict: Verdict | null
    /** Its ranges, in microseconds from the start of the file; one that is empty says that nothing of it is used. */
    times: ColumnType<TimeRange[], string | undefined, string>
    note: string
    name: Given<string | null>
    shotId: string | null
    /** Where it was put by hand in the sorted view; `null` leaves it to the rules. */
    folder: Given<string | null>
    changedAt: Given<Date>
  }
  proxy: {
    id: Generated<string>
    mediaFileId: string
    volumeId: string
    path: string
    sizeBytes: number
    probe: Json<MediaFacts>
    madeAt: Now
    decodedFrames: number | null
    decodeErrors: number | null
    timesCompared: number | null
    worstSeconds: number | null
    /** For each sound track; `null` for a proxy that was made before they were compared. */
    sounds: JsonOrNull<readonly SoundCompared[]>
  }
  /** Clips that are edited without a proxy: a person said so. */
  withoutProxy: { mediaFileId: string }
  /** What a clip’s proxy will have, predicted from a few coded seconds. */
  proxySample: { mediaFileId: string; bytes: number; measuredAt: Now }
}

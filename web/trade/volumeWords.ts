import type { VolumeKind } from '../../contract/storage'

/** What a volume is used for, in words. */
export const VOLUME_WORDS: Record<VolumeKind, string> = {
  edit: 'edit drive',
  archive: 'archive drive',
  phone: 'phone',
  cloud: 'cloud',
  stick: 'flash drive',
}

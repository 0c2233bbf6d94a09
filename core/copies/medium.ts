/** What a volume keeps its bytes on. */
export const MEDIA = ['disk', 'solid-state', 'flash', 'cloud'] as const
export type Medium = (typeof MEDIA)[number]

/** What a site is: a place that stays where it is, whatever a person carries, or somewhere on the net. */
export const SITE_KINDS = ['stays', 'carried', 'online'] as const
export type SiteKind = (typeof SITE_KINDS)[number]

export const SITE_WORDS: Record<SiteKind, string> = {
  stays: 'a place that stays where it is',
  carried: 'you carry it',
  online: 'on the net',
}

export const MEDIUM_WORDS: Record<Medium, string> = {
  disk: 'hard disk',
  'solid-state': 'solid state',
  flash: 'flash',
  cloud: 'cloud',
}

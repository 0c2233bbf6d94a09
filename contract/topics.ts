/** What a page may have asked for; an event names those that changed. */
export type Topic =
  | 'productions'
  | 'cards'
  | 'review'
  | 'copies'
  | 'proxies'
  | 'storage'
  | 'exports'
  | 'shelf'
  | 'gear'
  | 'bench'
  | 'tasks'
  | 'chart'

/** Names of the story: a production in the middle of its edit. */
export const STORY = {
  title: 'Caulking the garboard',
  reader: 'Third reader',
  cards: ['Curlew C', 'Plover C', 'Field 2'],
  edit: 'Slipway',
  away: 'Neap',
  shelf: 'Tide 1',
} as const

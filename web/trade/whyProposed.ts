import type { ReaderView } from '../../contract/cards'

/** What speaks for the production that a card is proposed for. */
export const whyProposed = ({ proposed }: ReaderView): string =>
  proposed?.production ? ` It seems to be for “${proposed.production.title}”: ${proposed.production.why}.` : ''

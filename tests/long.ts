/** `npm run test:long` tests everything; `npm test` leaves out what is only more of the same. */
export const isLong = process.env.YENDRA_LONG === '1'

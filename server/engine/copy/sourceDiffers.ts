/** Other bytes were read than were proved of this file before: nothing is made of them. */
export class SourceDiffers extends Error {
  constructor(
    readonly wanted: string,
    readonly found: string,
  ) {
    super(
      `It is not what was copied before (${found} instead of ${wanted}): the card is another one or ` +
        'fails, or that copy is wrong. Nothing was made of it.',
    )
  }
}

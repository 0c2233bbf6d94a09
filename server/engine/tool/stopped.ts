/** Thrown by a gate when the person stopped the work; never counted as a fault of a file or volume. */
export class Stopped extends Error {
  constructor() {
    super('Stopped by the person.')
  }
}

/** Something the person must put right first; its message is the sentence they read. */
export class CannotWork extends Error {}

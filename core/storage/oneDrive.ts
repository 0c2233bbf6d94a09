/** A volume with the names of others that lie on its drive. */
interface OnDrive {
  readonly name: string
  readonly sharesDriveWith: readonly string[]
}

/** Whether volumes are one, or lie on one drive together; also of none. */
export const onOneDrive = (volumes: readonly OnDrive[]): boolean =>
  volumes.every((one) => volumes.every((other) => one === other || one.sharesDriveWith.includes(other.name)))

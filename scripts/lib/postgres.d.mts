/** The project's own cluster on loopback. */
export interface Cluster {
  readonly pid: number | undefined
  /** Makes the database when there is none, empty or a copy of another one, and returns its address. */
  database(name: string, like?: string): string
  readonly port: number
  readonly ended: Promise<void>
  isThere(): boolean
  drop(name: string): unknown
  stop(): Promise<void>
}

export function startPostgres(home: string, options?: { tests?: boolean }): Promise<Cluster>
export function freePort(from?: number): Promise<number>
export function isAlive(pid: number): boolean

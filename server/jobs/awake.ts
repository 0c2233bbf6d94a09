import { spawn, type ChildProcess } from 'node:child_process'

/**
 * Keeps the computer from falling asleep while something is copied, where the system can be told so. Source:
 * systemd-inhibit(1): the lock is held as long as the command runs.
 */
export class Awake {
  readonly #works = new Set<string>()
  #lock: ChildProcess | undefined

  begin(work: string): void {
    this.#works.add(work)
    if (this.#lock) return
    const why = 'Footage is being copied and proved'
    const lock = spawn(
      'systemd-inhibit',
      ['--what=sleep:idle', '--who=Yendra', `--why=${why}`, '--mode=block', 'sleep', 'infinity'],
      { stdio: 'ignore' },
    )
    this.#lock = lock
    const gone = () => {
      if (this.#lock === lock) this.#lock = undefined
    }
    // Where there is no such program, nothing can be done about it.
    lock.on('error', gone)
    lock.on('exit', gone)
  }

  end(work: string): void {
    this.#works.delete(work)
    if (this.#works.size > 0) return
    this.#lock?.kill()
    this.#lock = undefined
  }
}

import type { TaskKind } from '../../contract/taskKinds'
import { count } from './cards/count'
import { measure } from './cards/measure'
import { preview } from './cards/preview'
import { scan } from './cards/scan'
import { sort } from './cards/sort'
import { chart } from './copies/chart'
import { check } from './copies/check'
import { copy } from './copies/copy'
import { list } from './copies/list'
import { repair } from './copies/repair'
import { twin } from './copies/backupCard'
import { verify } from './copies/verify'
import { render } from './exports/render'
import { estimate } from './proxies/estimate'
import { proxy } from './proxies/proxy'
import { recheck } from './proxies/recheck'
import { bag } from './shelf/bag'
import type { Job } from './work'

/** The work of every kind of task. */
export const JOBS: { readonly [K in TaskKind]: Job<K> } = {
  scan,
  sort,
  measure,
  count,
  preview,
  copy,
  check,
  twin,
  repair,
  chart,
  verify,
  list,
  proxy,
  recheck,
  estimate,
  render,
  bag,
}

import type { Migration } from 'kysely'
import * as first from './0001-first'
import * as lookedAgain from './0002-looked-again'
import * as facts from './0003-facts'
import * as summaries from './0004-summaries'
import * as tasks from './0005-tasks'
import * as search from './0006-search'
import * as uniquePlaces from './0007-unique-places'
import * as pages from './0008-pages'
import * as speeds from './0009-speeds'
import * as widerFacts from './0010-facts'
import * as gear from './0011-gear'
import * as clips from './0012-clips'
import * as review from './0013-review'
import * as noticed from './0014-noticed'
import * as clock from './0015-clock'
import * as queue from './0016-queue'
import * as sorted from './0017-sorted'
import * as unattended from './0018-unattended'
import * as same from './0019-same'
import * as twins from './0020-twins'
import * as given from './0021-given'
import * as rigs from './0022-rigs'
import * as stays from './0023-stays'
import * as lastSeen from './0024-last-seen'
import * as cardStamps from './0025-card-stamps'
import * as rangesAsTimes from './0026-ranges-as-times'
import * as knownByEnds from './0027-known-by-ends'
import * as functionsOnce from './0028-functions-once'
import * as takes from './0029-takes'
import * as soundCompared from './0030-sound-compared'
import * as mirrorPrint from './0031-mirror-print'
import * as toolLines from './0032-tool-lines'
import * as edits from './0033-edits'
import * as filmed from './0034-filmed'
import * as withoutProxy from './0035-without-proxy'
import * as rules from './0036-rules'
import * as foundWrong from './0037-found-wrong'
import * as chart from './0038-chart'
import * as keptChart from './0039-kept-chart'
import * as repair from './0040-repair'
import * as lists from './0041-lists'

/** In the order in which they run; a migration that has shipped is never changed. */
export const migrations: Record<string, Migration> = {
  '0001-first': first,
  '0002-looked-again': lookedAgain,
  '0003-facts': facts,
  '0004-summaries': summaries,
  '0005-tasks': tasks,
  '0006-search': search,
  '0007-unique-places': uniquePlaces,
  '0008-pages': pages,
  '0009-speeds': speeds,
  '0010-facts': widerFacts,
  '0011-gear': gear,
  '0012-clips': clips,
  '0013-review': review,
  '0014-noticed': noticed,
  '0015-clock': clock,
  '0016-queue': queue,
  '0017-sorted': sorted,
  '0018-unattended': unattended,
  '0019-same': same,
  '0020-twins': twins,
  '0021-given': given,
  '0022-rigs': rigs,
  '0023-stays': stays,
  '0024-last-seen': lastSeen,
  '0025-card-stamps': cardStamps,
  '0026-ranges-as-times': rangesAsTimes,
  '0027-known-by-ends': knownByEnds,
  '0028-functions-once': functionsOnce,
  '0029-takes': takes,
  '0030-sound-compared': soundCompared,
  '0031-mirror-print': mirrorPrint,
  '0032-tool-lines': toolLines,
  '0033-edits': edits,
  '0034-filmed': filmed,
  '0035-without-proxy': withoutProxy,
  '0036-rules': rules,
  '0037-found-wrong': foundWrong,
  '0038-chart': chart,
  '0039-kept-chart': keptChart,
  '0040-repair': repair,
  '0041-lists': lists,
}

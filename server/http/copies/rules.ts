import type { Router } from 'express'
import { effectSentence, isWeaker } from '../../../core/copies/ruleEffect'
import { figures as figuresSchema, rulesApi } from '../../../contract/rules'
import {
  addRule,
  changeRule,
  chooseRule,
  clearRules,
  ruleChoosers,
  rulesOfProduction,
} from '../../db/queries/clearRules'
import { readSettings, writeSettings } from '../../db/queries/settings'
import { tellChanged } from '../../db/queries/tasks'
import { isHeld, isTaken } from '../../db/taken'
import { judgedBy } from '../../facts/ruleEffect'
import type { Context } from '../context'
import { conflict, invalid, notFound } from '../problem'
import { serve } from '../route'
import { serveChange } from '../serveChange'

/** Rules of a yes: which there are, which one holds where, and what another one would change. */
export function ruleRoutes(router: Router, { db, host }: Context): void {
  const changed = () => tellChanged(db, 'copies', 'productions', 'gear')
  const known = async (id: string) => (await clearRules(db)).find((rule) => rule.id === id)

  async function kept<T>(write: () => Promise<T>): Promise<T> {
    try {
      return await write()
    } catch (error) {
      if (isTaken(error)) throw invalid('There is a rule of that name already. Choose another.', 'name')
      if (isHeld(error)) throw notFound('That rule')
      throw error
    }
  }

  serve(router, rulesApi.all, async () => {
    const [rules, { clients, productions }, { ruleId, atHome }] = await Promise.all([
      clearRules(db),
      ruleChoosers(db),
      readSettings(db),
    ])
    const chosenBy = (id: string) =>
      [...clients, ...productions].filter((one) => one.ruleId === id).map(({ name }) => name)
    return {
      rules: rules.map(({ putAwayAt, ...rule }) => ({
        ...rule,
        away: putAwayAt !== null,
        chosenBy: chosenBy(rule.id),
      })),
      usual: ruleId,
      atHome,
    }
  })

  serve(router, rulesApi.add, async ({ body }) => {
    const made = await kept(() => addRule(db, body))
    await changed()
    return made
  })

  serveChange(router, { db, row: 'clear_rule' }, rulesApi.change, async ({ params, body }) => {
    const rule = await known(params.id)
    if (!rule) throw notFound('That rule')
    if (rule.shipped) throw conflict(`“${rule.name}” came with Yendra and stays as it is. Change a copy of it.`)
    await kept(() => changeRule(db, params.id, body))
    await changed()
  })

  serve(router, rulesApi.effect, async ({ query }) => {
    const figures = query.of === 'rule' ? await figuresOf(query.figures) : undefined
    if (query.ruleId !== '' && !(await known(query.ruleId))) throw notFound('That rule')
    const { cards, newest } = await judgedBy(db, { host, now: Date.now(), looked: true }, query, figures)
    return { sentence: effectSentence(cards, newest), weaker: isWeaker(cards) }
  })

  serve(router, rulesApi.setUsual, async ({ body }) => {
    if (body.ruleId !== undefined && !(await known(body.ruleId)))
      throw invalid('That rule is not known. Choose another.', 'ruleId')
    await writeSettings(db, body)
    await changed()
  })

  serve(router, rulesApi.ofProduction, async ({ params }) => {
    const [of, { ruleId }] = await Promise.all([rulesOfProduction(db, params.id), readSettings(db)])
    if (!of) throw notFound('That production')
    return { own: of.own, otherwise: of.ofClient ?? ruleId, client: of.ofClient === null ? null : of.client }
  })

  serveChange(router, { db, row: 'production' }, rulesApi.chooseForProduction, async ({ params, body }) => {
    if (!(await kept(() => chooseRule(db, params.id, body.ruleId)))) throw notFound('That production')
    await changed()
  })
}

async function figuresOf(text: string) {
  try {
    return await figuresSchema.validate(JSON.parse(text), { strict: true })
  } catch (error) {
    throw invalid(error instanceof SyntaxError ? 'That is no rule.' : (error as Error).message, 'figures')
  }
}

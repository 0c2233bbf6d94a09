import { pino } from 'pino'

export const log = pino({ level: process.env.YENDRA_LOG ?? 'warn', base: null })

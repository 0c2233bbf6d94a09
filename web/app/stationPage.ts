import { lazy, type ComponentType } from 'react'

type Page = ComponentType<{ productionId: string }>

/** A page of a station, whose code can be fetched before it is drawn. */
export type StationPage = Page & { readonly fetch: () => Promise<unknown> }

export const stationPage = (fetch: () => Promise<{ default: Page }>): StationPage =>
  Object.assign(lazy(fetch), { fetch })

import { useEffect, useState, type ComponentType } from 'react'

type Page = ComponentType<{ productionId: string }>

/** A page of a station, whose code can be fetched before it is drawn. */
export type StationPage = Page & { readonly fetch: () => Promise<unknown> }

/**
 * A page whose code comes when somebody goes there. It is no `lazy` of React's: that holds back a page that was waited
 * for until 300 ms after its empty place was drawn.
 */
export function stationPage(load: () => Promise<{ default: Page }>): StationPage {
  let known: Page | undefined
  const fetch = async () => (known = (await load()).default)
  function Fetched({ productionId }: { productionId: string }) {
    const [Page, setPage] = useState(() => known)
    const [failure, setFailure] = useState<Error>()
    useEffect(() => {
      if (!Page)
        fetch().then(
          (one) => setPage(() => one),
          (error: Error) => setFailure(error),
        )
    }, [Page])
    // Told where every other error of a page is.
    if (failure) throw failure
    return Page ? <Page productionId={productionId} /> : <p className="text-quiet">One moment …</p>
  }
  return Object.assign(Fetched, { fetch })
}

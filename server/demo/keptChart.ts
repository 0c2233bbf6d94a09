import type { KeptLine } from '../../core/copies/keptChart'

const line = (production: string, shootOn: string, camera: string, sizeBytes: number, on: Record<string, string>) => ({
  ...{ client: production === 'Sail loft' ? 'Estuary sailing club' : 'own channel', production, shootOn },
  ...{ load: camera.startsWith('Field') ? camera : `${camera} A`, camera, sizeBytes, formatted: 'yes' },
  copies: Object.entries(on).map(([name, said]) => ({ name, said })),
})

const HULL = 'Stripping the clinker hull'

/** What the finished productions were written down as, before there was anything else. */
export const KEPT_CHART: { readonly fileName: string; readonly lines: KeptLine[] } = {
  fileName: 'where everything is.csv',
  lines: [
    line(HULL, '2026-08-22', 'Curlew', 118_400_000_000, { Ebb: 'x', Neap: 'x' }),
    line(HULL, '2026-08-22', 'Plover', 41_900_000_000, { Ebb: 'x', Neap: 'x' }),
    line(HULL, '2026-08-22', 'Field 1', 3_100_000_000, { Ebb: 'x' }),
    line('Sail loft', '2026-04-18', 'Curlew', 96_200_000_000, { Ebb: 'April', 'a red stick': 'all of it' }),
    line('Sail loft', '2026-04-18', 'Teal', 12_700_000_000, { Neap: 'only this' }),
  ],
}

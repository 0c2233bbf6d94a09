import Plotly from 'plotly.js-basic-dist-min'
import { useEffect, useRef } from 'react'
import { BYTE_CLASSES, type ByteClass } from '../../../core/storage/budget'
import { formatBytes } from '../../../core/units/quantity'
import type { VolumeView } from '../../../contract/storage'

const role = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim()

const PATTERNS: Record<ByteClass, { colour: string; shape: '' | '/' | '.' }> = {
  originals: { colour: 'accent', shape: '' },
  generated: { colour: 'accent', shape: '/' },
  outputs: { colour: 'ink', shape: '.' },
}
const NAMES: Record<ByteClass | 'other' | 'free' | 'kept', string> = {
  originals: 'originals',
  generated: 'generated',
  outputs: 'outputs',
  other: 'other files',
  free: 'can be planned',
  kept: 'kept free',
}

const bytesOf = (volume: VolumeView, name: ByteClass) =>
  volume.classes.find((one) => one.byteClass === name)?.sizeBytes ?? 0

/** Every volume as one bar to its own full length, so that small and large drives can be compared by how full they are. */
function traces(volumes: readonly VolumeView[]) {
  const rows = [...volumes].reverse()
  const y = rows.map((volume) => `${volume.name}  ${formatBytes(volume.capacityBytes)}`)
  const bar = (name: keyof typeof NAMES, of: (volume: VolumeView) => number, marker: object) => ({
    type: 'bar' as const,
    orientation: 'h' as const,
    name: NAMES[name],
    y,
    x: rows.map((volume) => (100 * Math.max(0, of(volume))) / volume.capacityBytes),
    marker,
    customdata: rows.map((volume) => formatBytes(of(volume))),
    hovertemplate: '%{customdata} (%{x:.1f} %)<extra>%{fullData.name}</extra>',
  })
  const known = (volume: VolumeView) => volume.classes.reduce((sum, one) => sum + one.sizeBytes, 0)
  const line = { color: role('ink'), width: 0.6 }
  return [
    ...BYTE_CLASSES.map((name) =>
      bar(name, (volume) => bytesOf(volume, name), {
        color: role(PATTERNS[name].colour),
        line,
        pattern: { shape: PATTERNS[name].shape, bgcolor: role('sheet'), fgcolor: role(PATTERNS[name].colour), size: 6 },
      }),
    ),
    bar('other', (volume) => volume.usedBytes - known(volume), { color: role('quiet'), line }),
    bar('free', (volume) => Math.min(volume.budget.plannableBytes, volume.budget.freeBytes), {
      color: role('paper'),
      line,
    }),
    bar('kept', (volume) => Math.min(volume.budget.headroomBytes, volume.budget.freeBytes), {
      color: role('rule'),
      line,
    }),
  ]
}

/** How full the volumes are, as bars to scale. */
export default function VolumeChart({ volumes }: { volumes: readonly VolumeView[] }) {
  const box = useRef<HTMLDivElement>(null)
  useEffect(() => {
    const target = box.current
    if (!target) return undefined
    const draw = () => {
      const font = { family: "'Atkinson Hyperlegible Next', sans-serif", size: 14, color: role('ink') }
      void Plotly.react(
        target,
        traces(volumes),
        {
          barmode: 'stack',
          height: 70 + volumes.length * 36,
          margin: { l: 8, r: 8, t: 4, b: 36 },
          bargap: 0.35,
          font,
          paper_bgcolor: 'rgba(0,0,0,0)',
          plot_bgcolor: 'rgba(0,0,0,0)',
          xaxis: { range: [0, 100], ticksuffix: ' %', gridcolor: role('rule'), zeroline: false, fixedrange: true },
          yaxis: { automargin: true, fixedrange: true, ticksuffix: '  ' },
          legend: { orientation: 'h', y: -0.14, yanchor: 'top', traceorder: 'normal' },
          hoverlabel: { font },
        },
        { displayModeBar: false, responsive: true },
      )
    }
    draw()
    window.addEventListener('yendra-theme', draw)
    return () => {
      window.removeEventListener('yendra-theme', draw)
      Plotly.purge(target)
    }
  }, [volumes])
  return (
    <div
      ref={box}
      role="img"
      aria-label={volumes
        .map((volume) => `${volume.name}: ${Math.round((100 * volume.usedBytes) / volume.capacityBytes)} % used`)
        .join(', ')}
    />
  )
}

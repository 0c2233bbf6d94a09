import { describe, expect, it } from 'vitest'
import { sidecarFields } from './sidecarFields'

describe('sidecars in XML', () => {
  it('are shown flat, attributes and texts alike', () => {
    const xml = `<?xml version="1.0"?><Clip xmlns:x="urn:x"><Device make="Curlew" modelName="C1"/><x:Take>12</x:Take><Lens><Focal>35 mm</Focal></Lens></Clip>`
    expect(sidecarFields(xml)).toEqual([
      { name: 'Device/make', value: 'Curlew' },
      { name: 'Device/modelName', value: 'C1' },
      { name: 'Take', value: '12' },
      { name: 'Lens/Focal', value: '35 mm' },
    ])
  })

  it('expand nothing, and are cut where they go on and on', () => {
    expect(sidecarFields('<!DOCTYPE a [<!ENTITY b SYSTEM "file:///etc/passwd">]><a>&b;</a>')).toEqual([])
    expect(sidecarFields('no xml at all <')).toEqual([])
    expect(sidecarFields(`<a>${'<b>x</b>'.repeat(500)}</a>`)).toHaveLength(60)
    expect(sidecarFields(`<a>${'y'.repeat(5000)}</a>`)[0]?.value).toHaveLength(200)
    expect(sidecarFields('<a>'.repeat(5000))).toEqual([])
  })
})

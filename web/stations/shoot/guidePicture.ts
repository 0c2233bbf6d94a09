import type { GuidesAsked } from '../../workers/guides'

/** Guides as the bytes of a PNG, painted beside the page. Rejects when the browser lacks the memory for it. */
export function guidePicture(asked: GuidesAsked): Promise<Uint8Array<ArrayBuffer>> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL('../../workers/guides.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<Uint8Array<ArrayBuffer>>) => {
      worker.terminate()
      resolve(data)
    }
    worker.onerror = () => {
      worker.terminate()
      reject(new Error('The browser has no memory for a picture of that size. Take the SVG, or a smaller frame.'))
    }
    worker.postMessage(asked)
  })
}

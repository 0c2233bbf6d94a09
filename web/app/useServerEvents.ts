import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { EVENTS_PATH } from '../../contract/api'
import { addressOf } from '../../contract/endpoint'
import { askAgain } from '../parts/asking/askAgain'
import { missedNone } from '../parts/asking/news'
import { tasksApi, type ServerEvent, type TaskView } from '../../contract/tasks'

/**
 * Listens to the server: tasks are put straight into their list, other news make the pages ask again. Returns whether
 * it answers.
 */
export function useServerEvents(): boolean {
  const client = useQueryClient()
  const [connected, setConnected] = useState(true)
  useEffect(() => {
    let source: EventSource | undefined
    const hear = ({ data }: MessageEvent<string>) => {
      const event = JSON.parse(data) as ServerEvent
      if (event.kind === 'began') {
        // Whatever came while nobody listened is asked for.
        if (!missedNone(event.news)) void askAgain(client)
        return
      }
      if (event.kind === 'changed') {
        for (const topic of event.topics) void askAgain(client, { queryKey: [topic] })
        return
      }
      client.setQueryData<TaskView[]>(['tasks', addressOf(tasksApi.recent, {})], (known = []) => {
        const at = known.findIndex((task) => task.id === event.task.id)
        return at < 0 ? [event.task, ...known] : known.with(at, event.task)
      })
    }
    const open = () => {
      source = new EventSource(`/api${EVENTS_PATH}`)
      source.onopen = () => setConnected(true)
      source.onerror = () => setConnected(false)
      source.onmessage = hear
    }
    // A browser opens few connections to one address: a hidden tab lets go of its own, and asks again when it is shown.
    const follow = () => {
      source?.close()
      if (document.visibilityState === 'visible') open()
    }
    follow()
    document.addEventListener('visibilitychange', follow)
    return () => {
      document.removeEventListener('visibilitychange', follow)
      source?.close()
    }
  }, [client])
  return connected
}

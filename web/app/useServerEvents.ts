import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import type { ServerEvent, TaskView } from '../../contract/tasks'

/** Listens to the server: tasks are put straight into their list, other news make the pages ask again. Returns whether it answers. */
export function useServerEvents(): boolean {
  const client = useQueryClient()
  const [connected, setConnected] = useState(true)
  useEffect(() => {
    const source = new EventSource('/api/events')
    source.onopen = () => {
      setConnected(true)
      void client.invalidateQueries()
    }
    source.onerror = () => setConnected(false)
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const event = JSON.parse(data) as ServerEvent
      if (event.kind === 'changed') {
        for (const topic of event.topics) void client.invalidateQueries({ queryKey: [topic] })
        return
      }
      client.setQueryData<TaskView[]>(['tasks', '/tasks'], (known = []) => {
        const at = known.findIndex((task) => task.id === event.task.id)
        return at < 0 ? [event.task, ...known] : known.with(at, event.task)
      })
    }
    return () => source.close()
  }, [client])
  return connected
}

import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useRef } from 'react'
import { NoAnswerError } from './problem'

/**
 * A write that happens once, however often it is tapped or sent again: the same content keeps its key until the server has answered.
 * `touches` are the queries that show what it changes.
 */
export function useOnce<Body extends { key: string }, Answer>(write: (body: Body) => Promise<Answer>, touches: readonly string[]) {
  const cache = useQueryClient()
  const open = useRef<{ content: string; key: string } | null>(null)
  return useMutation({
    mutationFn: (body: Omit<Body, 'key'>) => {
      const content = JSON.stringify(body, (_name, value: unknown) => (value instanceof File ? [value.name, value.size, value.lastModified] : value))
      if (open.current?.content !== content) open.current = { content, key: crypto.randomUUID() }
      return write({ ...body, key: open.current.key } as Body)
    },
    networkMode: 'always',
    onSettled: (_answer, error) => {
      if (!(error instanceof NoAnswerError)) open.current = null
    },
    onSuccess: () => cache.invalidateQueries({ predicate: (q) => touches.includes(String(q.queryKey[0])) }),
  })
}

/** A file and its key, as the server reads uploads. */
export function fileBody(file: File, key: string): FormData {
  const body = new FormData()
  body.set('key', key)
  body.set('file', file)
  return body
}

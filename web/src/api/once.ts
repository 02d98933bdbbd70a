import { useMutation, useQueryClient } from '@tanstack/react-query'
import { NoAnswerError } from './problem'

/** Keys of writes that nobody has answered yet, by what they say: the same content asks with the same key, also from a form opened anew. */
const unanswered = new Map<string, string>()

/**
 * A write that happens once, however often it is tapped or sent again: the same content keeps its key until the server has answered.
 * `touches` are the queries that show what it changes.
 */
export function useOnce<Body extends { key: string }, Answer>(write: (body: Body) => Promise<Answer>, touches: readonly string[]) {
  const cache = useQueryClient()
  const nameOf = (body: Omit<Body, 'key'>) => JSON.stringify([touches, body], (_name, value: unknown) => (value instanceof File ? [value.name, value.size, value.lastModified] : value))
  return useMutation({
    mutationFn: (body: Omit<Body, 'key'>) => {
      const name = nameOf(body)
      const key = unanswered.get(name) ?? crypto.randomUUID()
      unanswered.set(name, key)
      return write({ ...body, key } as Body)
    },
    networkMode: 'always',
    onSettled: (_answer, error, body) => {
      if (error instanceof NoAnswerError) return
      unanswered.delete(nameOf(body))
      // a refusal as well: what is on screen may be what was out of date
      return cache.invalidateQueries({ predicate: (q) => touches.includes(String(q.queryKey[0])) })
    },
  })
}

/** Sends a form with a file as it is: the client would write JSON otherwise. */
export const asForm = { bodySerializer: (body: unknown) => body as FormData }

/** A file and its key, as the server reads uploads. */
export function fileBody(file: File, key: string): FormData {
  const body = new FormData()
  body.set('key', key)
  body.set('file', file)
  return body
}

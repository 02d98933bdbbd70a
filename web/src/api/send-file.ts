import { useIsMutating, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { client } from '@/api/client'
import { asForm } from '@/api/once'
import { dataOf, ProblemError } from '@/api/problem'
import { useWho } from '@/api/session'
import { hold, letGo, waitingOf, type Follows, type WaitingFile, type Way } from '@/api/waiting-files'

const SENDING = 'sending a file'
const WAITING = 'waiting files'

/** Whether a file is on its way there: what would leave it behind waits. */
export const useIsSending = (to: Way): boolean => useIsMutating({ mutationKey: [SENDING, to] }) > 0

/** What did not arrive of this person's job. */
export function useWaitingFiles(tag: string): readonly WaitingFile[] {
  const who = useWho()
  return useQuery({ queryKey: [WAITING, who, tag], queryFn: () => waitingOf(who, tag), networkMode: 'always', enabled: who !== '' }).data ?? []
}

/** A file that the server will not have, however often it is sent; a session that has ended and a server that is away come back. */
const isRefused = (error: unknown): boolean => error instanceof ProblemError && error.problem.status < 500 && ![401, 403, 429].includes(error.problem.status)

/**
 * Sends a file, and tells its hash when it has arrived, also where the screen has gone on since. It is kept by its content, so that sending it
 * twice keeps it once. Until it has arrived, or was refused, it waits in this browser with what follows it.
 */
export function useSendFile(to: Way, name: string, onKept: (hash: string, follows: Follows) => void) {
  const who = useWho()
  const cache = useQueryClient()
  return useMutation({
    mutationKey: [SENDING, to],
    networkMode: 'always',
    onSuccess: ({ hash, id }, sent) => {
      onKept(hash, sent)
      return letGo(id) // what follows it is in the outbox by now
    },
    onSettled: () => cache.invalidateQueries({ queryKey: [WAITING] }),
    mutationFn: async (sent: { file: Blob } & Follows & Partial<WaitingFile>) => {
      const waiting = { id: crypto.randomUUID(), at: Date.now(), name, ...sent, who, to }
      await hold(waiting)
      const body = new FormData()
      body.set('file', sent.file, sent.file instanceof File ? sent.file.name : waiting.name)
      try {
        return { id: waiting.id, ...(await dataOf(client.POST(to, { body: body as never, ...asForm }))) }
      } catch (error) {
        if (isRefused(error)) await letGo(waiting.id)
        throw error
      }
    },
  })
}

/** Drops a file that waits. */
export function useDropFile() {
  const cache = useQueryClient()
  return useMutation({ networkMode: 'always', mutationFn: (file: WaitingFile) => letGo(file.id), onSettled: () => cache.invalidateQueries({ queryKey: [WAITING] }) })
}

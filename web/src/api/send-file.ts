import { useIsMutating, useMutation } from '@tanstack/react-query'
import { client } from '@/api/client'
import { asForm } from '@/api/once'
import { dataOf } from '@/api/problem'

type Way = '/api/photos' | '/api/sounds'

const SENDING = 'sending a file'

/** Whether a file is on its way there: what would leave it behind waits. */
export const useIsSending = (to: Way): boolean => useIsMutating({ mutationKey: [SENDING, to] }) > 0

/** Sends a file, and tells its hash when it has arrived, also where the screen has gone on since. It is kept by its content, so that sending it twice keeps it once. */
export const useSendFile = (to: Way, name: string, onKept: (hash: string) => void) =>
  useMutation({
    mutationKey: [SENDING, to],
    networkMode: 'always',
    onSuccess: ({ hash }) => onKept(hash),
    mutationFn: (file: Blob) => {
      const body = new FormData()
      body.set('file', file, file instanceof File ? file.name : name)
      return dataOf(client.POST(to, { body: body as never, ...asForm }))
    },
  })

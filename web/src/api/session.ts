import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { client } from './client'
import { dataOf } from './problem'

export const useSession = () =>
  useQuery({ queryKey: ['session'], queryFn: () => dataOf(client.GET('/api/session')), staleTime: 60_000 })

export function useSignIn() {
  const cache = useQueryClient()
  return useMutation({
    mutationFn: (body: { username: string; password: string }) => dataOf(client.POST('/api/session', { body })),
    onSuccess: (session) => {
      cache.setQueryData(['session'], session)
      void cache.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'session' })
    },
  })
}

export function useSignOut() {
  const cache = useQueryClient()
  return useMutation({
    mutationFn: () => dataOf(client.DELETE('/api/session')),
    onSuccess: (session) => {
      cache.clear()
      cache.setQueryData(['session'], session)
    },
  })
}

export const useMay = (action: string): boolean => useSession().data?.user?.may.includes(action) ?? false

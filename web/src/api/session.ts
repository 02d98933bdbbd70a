import { useMutation, useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query'
import { setZone } from '@/lib/dates'
import { kept } from '@/lib/kept'
import { setLabelSheet } from '@/lib/label-sheet'
import { setSign } from '@/lib/money'
import { client } from './client'
import { dataOf } from './problem'
import type { Session } from './types'

const fetchSession = async (): Promise<Session> => {
  const session = await dataOf(client.GET('/api/session'))
  setSign(session.shop.sign)
  setZone(session.shop.time_zone)
  setLabelSheet({ columns: session.shop.label_columns, rows: session.shop.label_rows })
  return session
}

export const useSession = () => useQuery({ queryKey: ['session'], queryFn: fetchSession, staleTime: 60_000 })

/** Nobody is signed in any more: the sign-in form comes, and nothing of the former person's stays on the screen. */
export function endSession(cache: QueryClient) {
  cache.setQueryData<Session>(['session'], (was) => was && { ...was, user: null })
  cache.removeQueries({ predicate: (q) => q.queryKey[0] !== 'session' })
}

export function useSignIn() {
  const cache = useQueryClient()
  return useMutation({
    mutationFn: (body: { username: string; password: string; code: string }) => dataOf(client.POST('/api/session', { body })),
    onSuccess: (session) => {
      kept.forgetOthers(session.user?.username ?? '')
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
      kept.forgetAll()
      endSession(cache)
      cache.setQueryData(['session'], session)
    },
  })
}

/** One's own password: the session stays, with a token of its own. */
export function useOwnPassword() {
  const cache = useQueryClient()
  return useMutation({
    mutationFn: (body: { old: string; new: string }) => dataOf(client.POST('/api/session/password', { body })),
    onSuccess: (session) => cache.setQueryData(['session'], session),
  })
}

/** Where one is signed in, and whether a second factor is asked for. */
export const useAccount = () => useQuery({ queryKey: ['account'], queryFn: () => dataOf(client.GET('/api/session/account')) })

function useAccountWrite<Body, Answer>(write: (body: Body) => Promise<Answer>) {
  const cache = useQueryClient()
  return useMutation({ mutationFn: write, onSuccess: () => cache.invalidateQueries({ queryKey: ['account'] }) })
}

export const useEndOthers = () => useAccountWrite(() => dataOf(client.POST('/api/session/account/end-others')))
export const useBeginFactor = () => useMutation({ mutationFn: () => dataOf(client.POST('/api/session/account/factor')) })
export const useFactorOn = () => useAccountWrite((code: string) => dataOf(client.POST('/api/session/account/factor/on', { body: { code } })))
export const useFactorOff = () => useAccountWrite((password: string) => dataOf(client.POST('/api/session/account/factor/off', { body: { password } })))

export const useMay = (action: string): boolean => useSession().data?.user?.may.includes(action) ?? false

/** Who is signed in, by the name that others know. */
export const useWhoName = (): string => useSession().data?.user?.name ?? ''

/** Who is signed in, by the name that they sign in with. */
export const useWho = (): string => useSession().data?.user?.username ?? ''

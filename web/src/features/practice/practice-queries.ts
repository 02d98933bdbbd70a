import { useQuery, useQueryClient } from '@tanstack/react-query'
import { client } from '@/api/client'
import { useOnce } from '@/api/once'
import { dataOf } from '@/api/problem'
import type { components } from '@/api/schema'

export type Lesson = components['schemas']['LessonView']
export type Run = components['schemas']['PracticeRunView']
export type Look = Run['looks'][number]
export type Try = Run['repairs'][number]
export type Score = components['schemas']['PracticeScoreView']
export type Move = Pick<components['schemas']['PracticeMoveIn'], 'do'> & Partial<Pick<components['schemas']['PracticeMoveIn'], 'what' | 'care' | 'percent' | 'mains'>>
export type Care = NonNullable<Move['care']>[number]

export const useLessons = () => useQuery({ queryKey: ['practice'], queryFn: () => dataOf(client.GET('/api/practice/lessons')) })

export const useClass = (isAsked: boolean) => useQuery({ queryKey: ['practice', 'class'], enabled: isAsked, queryFn: () => dataOf(client.GET('/api/practice/class')) })

export const useRun = (id: number) => useQuery({ queryKey: ['practice', 'run', id], queryFn: () => dataOf(client.GET('/api/practice/runs/{number}', { params: { path: { number: id } } })) })

/** When the planner's move is told, and on the drive of which sheet a lesson is played. */
export interface Wish {
  sheet: number | null
  tells_each: boolean
  is_led: boolean
}

export const FAMILIES: Record<string, string> = { tray: 'Tray drive', slot: 'Slot drive', lid: 'Drive under a lid' }

export const useOwnDrives = () => useQuery({ queryKey: ['practice', 'drives'], queryFn: () => dataOf(client.GET('/api/practice/drives')) })

export const useBegin = () => useOnce((body: Wish & { key: string; lesson: string }) => dataOf(client.POST('/api/practice/runs', { body })), ['practice'])

/** A move after so many: sent again it is made once, and what went on in another window is shown. The answer is where the unit stands, and is shown at once. */
export function useMove(run: Run) {
  const cache = useQueryClient()
  const address = { params: { path: { number: run.id } } }
  return useOnce(
    async (body: Move & { key: string; after: number }) => {
      const told = await dataOf(client.POST('/api/practice/runs/{number}/moves', { ...address, body: { what: '', care: [], percent: 0, mains: 'any', ...body } }))
      cache.setQueryData(['practice', 'run', run.id], told)
    },
    ['practice'],
  )
}

/** What the unit sounds like as it is now: another address once a repair was tried. */
export const soundOf = (run: Run): string => `/api/practice/runs/${run.id}/sound?after=${run.moves}`

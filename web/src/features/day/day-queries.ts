import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { client } from '@/api/client'
import { useOnce } from '@/api/once'
import { dataOf } from '@/api/problem'
import type { components } from '@/api/schema'
import type { Acts } from '@/api/types'

/** What is in the house: units that hold every word, the first of each group, or all of the groups that are asked for whole. While another answer is on its way the last one stands. */
export const useDay = (words = '', whole: readonly Acts[] = []) =>
  useQuery({
    queryKey: ['day', words, whole],
    queryFn: () => dataOf(client.GET('/api/day', { params: { query: { words, whole: [...whole] } } })),
    placeholderData: keepPreviousData,
    refetchInterval: 60_000,
  })

export type Week = components['schemas']['WeekView']
export type WeekRow = Week['rows'][number]
export type CalendarAddress = components['schemas']['CalendarView']

/** The week as it was last worked out: looked at again soon while a newer one is on its way. */
export const useWeek = (whole: boolean) =>
  useQuery({
    queryKey: ['week', whole],
    queryFn: () => dataOf(client.GET('/api/week', { params: { query: { whole } } })),
    placeholderData: keepPreviousData,
    refetchInterval: (q) => (q.state.data?.is_stale ? 4_000 : 60_000),
  })

export const useCalendars = (isAsked: boolean) => useQuery({ queryKey: ['calendars'], enabled: isAsked, queryFn: () => dataOf(client.GET('/api/calendars')) })

export const useMakeCalendar = () => useOnce((body: { key: string; name: string }) => dataOf(client.POST('/api/calendars', { body })), ['calendars'])

export const useEndCalendar = () => useOnce(({ id, key }: { key: string; id: number }) => dataOf(client.POST('/api/calendars/{number}/end', { params: { path: { number: id } }, body: { key } })), ['calendars'])

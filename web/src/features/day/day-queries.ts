import { useQuery } from '@tanstack/react-query'
import { client } from '@/api/client'
import { useOnce } from '@/api/once'
import { dataOf } from '@/api/problem'
import type { components } from '@/api/schema'

export const useDay = () => useQuery({ queryKey: ['day'], queryFn: () => dataOf(client.GET('/api/day')), refetchInterval: 60_000 })

export type Week = components['schemas']['WeekView']
export type WeekRow = Week['rows'][number]
export type CalendarAddress = components['schemas']['CalendarView']

/** The week as it was last worked out: looked at again soon while a newer one is on its way. */
export const useWeek = () => useQuery({ queryKey: ['week'], queryFn: () => dataOf(client.GET('/api/week')), refetchInterval: (q) => (q.state.data?.is_stale ? 4_000 : 60_000) })

export const useCalendars = (isAsked: boolean) => useQuery({ queryKey: ['calendars'], enabled: isAsked, queryFn: () => dataOf(client.GET('/api/calendars')) })

export const useMakeCalendar = () => useOnce((body: { key: string; name: string }) => dataOf(client.POST('/api/calendars', { body })), ['calendars'])

export const useEndCalendar = () => useOnce(({ id, key }: { key: string; id: number }) => dataOf(client.POST('/api/calendars/{number}/end', { params: { path: { number: id } }, body: { key } })), ['calendars'])

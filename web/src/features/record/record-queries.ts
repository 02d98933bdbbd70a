import { useQuery } from '@tanstack/react-query'
import { client } from '@/api/client'
import { useOnce } from '@/api/once'
import { dataOf } from '@/api/problem'
import type { components } from '@/api/schema'

export type Advice = components['schemas']['AdviceView']
export type Reliability = Advice['every']
export type Schools = components['schemas']['AgainstSchoolsView']
export type Months = components['schemas']['FiguresOfMonthsView']

export type Learning = components['schemas']['LearningView']
export type LearntRow = Learning['rows'][number]

export const useAdvice = () => useQuery({ queryKey: ['record', 'advice'], queryFn: () => dataOf(client.GET('/api/record/advice')) })

export const useSchools = () => useQuery({ queryKey: ['record', 'schools'], queryFn: () => dataOf(client.GET('/api/record/schools')) })

export const useMonths = () => useQuery({ queryKey: ['record', 'months'], queryFn: () => dataOf(client.GET('/api/record/months')) })

/** What the jobs teach takes the server a moment: it is not asked for again while somebody reads it. */
export const useLearning = () => useQuery({ queryKey: ['record', 'learning'], queryFn: () => dataOf(client.GET('/api/record/learning')), staleTime: 60_000 })

export const useOtherSuspects = () => useQuery({ queryKey: ['record', 'suspects'], queryFn: () => dataOf(client.GET('/api/record/learning/suspects')) })

const TOUCHES = ['record', 'job', 'outlook', 'day', 'workbench']
export const useUseLearnt = () => useOnce((body: components['schemas']['UseLearntIn']) => dataOf(client.POST('/api/record/learning/use', { body })), TOUCHES)
export const useStopLearnt = () => useOnce((body: components['schemas']['OnceIn']) => dataOf(client.POST('/api/record/learning/stop', { body })), TOUCHES)

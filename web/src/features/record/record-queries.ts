import { useQuery } from '@tanstack/react-query'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'
import type { components } from '@/api/schema'

export type Advice = components['schemas']['AdviceView']
export type Reliability = Advice['every']
export type Months = components['schemas']['FiguresOfMonthsView']

export const useAdvice = () => useQuery({ queryKey: ['record', 'advice'], queryFn: () => dataOf(client.GET('/api/record/advice')) })

export const useMonths = () => useQuery({ queryKey: ['record', 'months'], queryFn: () => dataOf(client.GET('/api/record/months')) })

import { useQuery } from '@tanstack/react-query'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'

export const useDay = () => useQuery({ queryKey: ['day'], queryFn: () => dataOf(client.GET('/api/day')), refetchInterval: 60_000 })

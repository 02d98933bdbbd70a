import { useQuery } from '@tanstack/react-query'
import { client } from '@/api/client'
import { useOnce } from '@/api/once'
import { dataOf } from '@/api/problem'
import type { components } from '@/api/schema'
import type { FiguresSaid, InstrumentSaid } from '@/api/types'

type PersonNew = components['schemas']['PersonIn']
type PersonChange = components['schemas']['PersonChangeIn'] & { username: string }

export const useFigures = () => useQuery({ queryKey: ['shop'], queryFn: () => dataOf(client.GET('/api/shop')) })
export const useStaff = () => useQuery({ queryKey: ['people'], queryFn: () => dataOf(client.GET('/api/people')) })
export const useInstruments = () => useQuery({ queryKey: ['instruments'], queryFn: () => dataOf(client.GET('/api/instruments')) })

export const useSetFigures = () => useOnce((body: FiguresSaid) => dataOf(client.POST('/api/shop', { body })), ['shop', 'session', 'job', 'outlook', 'workbench'])
export const useAddPerson = () => useOnce((body: PersonNew) => dataOf(client.POST('/api/people', { body })), ['people'])
export const useChangePerson = () =>
  useOnce(({ username, ...body }: PersonChange) => dataOf(client.POST('/api/people/{username}', { params: { path: { username } }, body })), ['people', 'session'])
export const useSayInstrument = () => useOnce((body: InstrumentSaid) => dataOf(client.POST('/api/instruments', { body })), ['instruments', 'job', 'outlook'])

import { useQuery } from '@tanstack/react-query'
import { client } from '@/api/client'
import { asForm, fileBody, useOnce } from '@/api/once'
import { dataOf } from '@/api/problem'
import type { components } from '@/api/schema'

type Schemas = components['schemas']
const TOUCHED = ['shelf', 'part', 'donor', 'workbench', 'job', 'tools']

export const useParts = (q: string, level: string, usedUp: boolean) =>
  useQuery({
    queryKey: ['shelf', 'parts', q, level, usedUp],
    queryFn: () => dataOf(client.GET('/api/shelf/parts', { params: { query: { q, used_up: usedUp, ...(level && { level }) } } })),
    placeholderData: (before) => before,
  })
export const usePart = (tag: string) => useQuery({ queryKey: ['part', tag], queryFn: () => dataOf(client.GET('/api/shelf/parts/{tag}', { params: { path: { tag } } })) })
export const useWanted = () => useQuery({ queryKey: ['shelf', 'wanted'], queryFn: () => dataOf(client.GET('/api/shelf/wanted')) })
export const useOrders = () => useQuery({ queryKey: ['shelf', 'orders'], queryFn: () => dataOf(client.GET('/api/shelf/orders')) })
export const useDonors = () => useQuery({ queryKey: ['shelf', 'donors'], queryFn: () => dataOf(client.GET('/api/shelf/donors')) })
export const useDonor = (tag: string) => useQuery({ queryKey: ['donor', tag], queryFn: () => dataOf(client.GET('/api/shelf/donors/{tag}', { params: { path: { tag } } })) })
export const useAway = () => useQuery({ queryKey: ['shelf', 'away'], queryFn: () => dataOf(client.GET('/api/shelf/away')) })

export const useReceive = () => useOnce((body: Schemas['ReceiveIn']) => dataOf(client.POST('/api/shelf/parts', { body })), TOUCHED)
export const useTakeList = () =>
  useOnce(({ file, key }: { file: File; key: string }) => dataOf(client.POST('/api/shelf/list', { body: fileBody(file, key) as never, ...asForm })), TOUCHED)
export const useScrap = (tag: string) => useOnce((body: Schemas['ScrapIn']) => dataOf(client.POST('/api/shelf/parts/{tag}/scrap', { params: { path: { tag } }, body })), TOUCHED)
export const useCorrectPart = () =>
  useOnce(({ tag, ...body }: Schemas['CorrectIn'] & { tag: string }) => dataOf(client.POST('/api/shelf/parts/{tag}/correct', { params: { path: { tag } }, body })), TOUCHED)
export const useSuppliers = () => useQuery({ queryKey: ['shelf', 'suppliers'], queryFn: () => dataOf(client.GET('/api/shelf/suppliers')) })
export const useCodes = () => useQuery({ queryKey: ['shelf', 'codes'], queryFn: () => dataOf(client.GET('/api/shelf/codes')) })
export const useCheckPart = (tag: string) => useOnce((body: Schemas['ChecksIn']) => dataOf(client.POST('/api/shelf/parts/{tag}/checks', { params: { path: { tag } }, body })), TOUCHED)
export const useCheckDonor = (tag: string) => useOnce((body: Schemas['ChecksIn']) => dataOf(client.POST('/api/shelf/donors/{tag}/checks', { params: { path: { tag } }, body })), TOUCHED)
export const useMinimum = () => useOnce((body: Schemas['MinimumIn']) => dataOf(client.POST('/api/shelf/minimum', { body })), TOUCHED)
export const useSize = (tag: string) => useOnce((body: Schemas['SizeIn']) => dataOf(client.POST('/api/shelf/parts/{tag}/size', { params: { path: { tag } }, body })), TOUCHED)
export const useAddDonor = () => useOnce((body: Schemas['DonorIn']) => dataOf(client.POST('/api/shelf/donors', { body })), TOUCHED)
export const useHarvest = (tag: string) => useOnce((body: Schemas['HarvestIn']) => dataOf(client.POST('/api/shelf/donors/{tag}/harvest', { params: { path: { tag } }, body })), TOUCHED)
export const useScrapDonor = (tag: string) => useOnce((body: Schemas['DonorScrapIn']) => dataOf(client.POST('/api/shelf/donors/{tag}/scrap', { params: { path: { tag } }, body })), TOUCHED)
export const useOrder = () => useOnce((body: Schemas['OrderIn']) => dataOf(client.POST('/api/shelf/orders', { body })), TOUCHED)
export const useArrive = (tag: string) => useOnce((body: Schemas['ArriveIn']) => dataOf(client.POST('/api/shelf/orders/{tag}/arrive', { params: { path: { tag } }, body })), TOUCHED)
export const useCancelOrder = (tag: string) => useOnce((body: Schemas['CancelIn']) => dataOf(client.POST('/api/shelf/orders/{tag}/cancel', { params: { path: { tag } }, body })), TOUCHED)
export const usePastOrders = () => useQuery({ queryKey: ['shelf', 'past-orders'], queryFn: () => dataOf(client.GET('/api/shelf/past-orders')) })
export const useCorrectDates = (tag: string) => useOnce((body: Schemas['DatesIn']) => dataOf(client.POST('/api/shelf/orders/{tag}/dates', { params: { path: { tag } }, body })), TOUCHED)

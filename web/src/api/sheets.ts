import { useQuery } from '@tanstack/react-query'
import { client } from './client'
import { useOnce } from './once'
import { dataOf } from './problem'
import type { components } from './schema'

/** What shows a sheet, or what fits. */
export const SHEET_TOUCHES = ['sheets', 'sheet', 'fits', 'key', 'part', 'workbench', 'job']

export const useSheets = () => useQuery({ queryKey: ['sheets'], queryFn: () => dataOf(client.GET('/api/sheets')), staleTime: 300_000 })

/** The tables, levels and words that sheets and parts are written in. */
export const useSheetForm = () => useQuery({ queryKey: ['sheet-form'], queryFn: () => dataOf(client.GET('/api/sheet-form')), staleTime: Infinity })

export const useSay = () => useOnce((body: components['schemas']['SayIn']) => dataOf(client.POST('/api/fits', { body })), SHEET_TOUCHES)

import { useQuery } from '@tanstack/react-query'
import { client } from '@/api/client'
import { asForm, fileBody, useOnce } from '@/api/once'
import { dataOf } from '@/api/problem'
import type { components } from '@/api/schema'
import { SHEET_TOUCHES } from '@/api/sheets'

type SheetIn = components['schemas']['SheetIn']

export const useSheet = (variant: string, version?: number) =>
  useQuery({
    queryKey: ['sheet', variant, version ?? 'current'],
    queryFn: () => dataOf(client.GET('/api/sheets/{variant}', { params: { path: { variant }, query: version === undefined ? {} : { version } } })),
  })

export const useSaveSheet = (variant: string) =>
  useOnce((body: SheetIn) => dataOf(client.POST('/api/sheets/{variant}', { params: { path: { variant } }, body })), SHEET_TOUCHES)

export const useBeginSheet = () => useOnce((body: components['schemas']['BeginningIn']) => dataOf(client.POST('/api/sheets', { body })), SHEET_TOUCHES)

export const useRetireSheet = (variant: string) =>
  useOnce((body: components['schemas']['RetireIn']) => dataOf(client.POST('/api/sheets/{variant}/retired', { params: { path: { variant } }, body })), SHEET_TOUCHES)

export const useImportSheet = () =>
  useOnce(({ file, key }: { file: File; key: string }) => dataOf(client.POST('/api/sheet-files', { body: fileBody(file, key) as never, ...asForm })), SHEET_TOUCHES)

export const useImportTable = (variant: string) =>
  useOnce(
    ({ table, file, key }: { table: string; file: File; key: string }) =>
      dataOf(client.POST('/api/sheets/{variant}/tables/{table}', { params: { path: { variant, table } }, body: fileBody(file, key) as never, ...asForm })),
    SHEET_TOUCHES,
  )

export type Named = { maker: string; console: string; revision: string }

/** What is known of a console outside its drive; version 0 where nobody has written it yet. */
export const useConsole = ({ maker, console, revision }: Named) =>
  useQuery({ queryKey: ['console', maker, console, revision], queryFn: () => dataOf(client.GET('/api/console', { params: { query: { maker, console, revision } } })) })

/** What shows how a unit is opened: the console's own sheet and every mat. */
const CONSOLE_TOUCHES = ['console', 'mat', 'job']

export const useSaveConsole = () => useOnce((body: components['schemas']['ConsoleIn']) => dataOf(client.POST('/api/console', { body })), CONSOLE_TOUCHES)

export const useImportConsole = () =>
  useOnce(({ file, key }: { file: File; key: string }) => dataOf(client.POST('/api/console-files', { body: fileBody(file, key) as never, ...asForm })), CONSOLE_TOUCHES)

/** Replaces one table of a console's sheet. */
export const useImportConsoleTable = ({ maker, console, revision }: Named) =>
  useOnce(
    ({ table, file, key }: { table: string; file: File; key: string }) =>
      dataOf(client.POST('/api/console/tables/{table}', { params: { path: { table }, query: { maker, console, revision } }, body: fileBody(file, key) as never, ...asForm })),
    CONSOLE_TOUCHES,
  )

export const useFitsOfUnit = (variant: string) =>
  useQuery({
    queryKey: ['fits', 'unit', variant],
    queryFn: () => dataOf(client.GET('/api/fits/unit/{variant}', { params: { path: { variant } } })),
    enabled: variant !== '',
  })

export const useFitsAtLevel = (level: string) =>
  useQuery({ queryKey: ['fits', 'level', level], queryFn: () => dataOf(client.GET('/api/fits/level/{level}', { params: { path: { level } } })) })

export const useHomesOfPart = (level: string, code: string) =>
  useQuery({ queryKey: ['fits', 'part', level, code], queryFn: () => dataOf(client.GET('/api/fits/part', { params: { query: { level, code } } })), enabled: code !== '' })

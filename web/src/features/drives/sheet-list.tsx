import { useQuery } from '@tanstack/react-query'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'
import type { Sheet } from '@/api/types'
import { discClass } from '@/lib/words'
import { Chip, Notice, Panel, Waiting } from '@/ui/panel'
import { DrivePlan } from './drive-plan'
import { Identify } from './identify'

const PAIRING: Record<string, string> = {
  none: 'Unpaired: whole drives swap freely',
  board: 'Board paired: it stays with its console',
  chip: 'Chip paired: its board stays with its console',
  unknown: 'Pairing unknown: treat it as paired',
}

export function SheetList() {
  const sheets = useQuery({ queryKey: ['sheets'], queryFn: () => dataOf(client.GET('/api/sheets')), staleTime: 300_000 })
  return (
    <div className="mat-grid h-full overflow-y-auto p-4 lg:p-6" role="region" aria-label="Drive sheets" tabIndex={0}>
      <div className="mx-auto max-w-6xl space-y-4">
        <div>
          <h1 className="text-[1.55rem] font-bold">Drives</h1>
          <p className="text-quiet">What this shop knows about each drive, with where every value comes from.</p>
        </div>
        <Panel title="Which drive is this?" aside="from what the eye can see">
          <Identify />
        </Panel>
        {sheets.isPending && <Waiting what="Fetching drive sheets…" />}
        {sheets.isError && (
          <Notice tone="danger" title="Drive sheets could not be fetched" role="alert">
            {sheets.error.message}
          </Notice>
        )}
        {sheets.data?.length === 0 && <Notice title="No drive sheet yet">A unit can be taken in once its drive has a sheet.</Notice>}
        {sheets.data?.map((s) => (
          <SheetPanel key={s.id} sheet={s} />
        ))}
      </div>
    </div>
  )
}

function SheetPanel({ sheet }: { sheet: Sheet }) {
  const { drive } = sheet
  return (
    <Panel
      title={
        <>
          {drive.maker} {drive.console}, revision {drive.revision}
        </>
      }
      aside={
        <>
          drive <span className="figures font-semibold text-ink">{drive.variant}</span>, sheet version {sheet.version}
        </>
      }
    >
      <div className="grid gap-5 md:grid-cols-[21rem_minmax(0,1fr)]">
        <DrivePlan drive={drive} parts={[]} />
        <div>
          <p className="mb-2 flex flex-wrap gap-1.5">
            <Chip>{drive.family} load</Chip>
            <Chip tone={drive.pairing === 'none' ? 'clear' : 'brass'}>{PAIRING[drive.pairing]}</Chip>
            {drive.wavelengths.map((nm) => (
              <Chip key={nm}>{nm} nm</Chip>
            ))}
            {sheet.classes.map((c) => (
              <Chip key={c}>reads {discClass(c)}</Chip>
            ))}
            {drive.fuse_rating && <Chip>fuse {drive.fuse_rating}</Chip>}
          </p>
          <table className="w-full text-left">
            <thead className="text-tiny text-quiet">
              <tr>
                <th className="py-1 font-normal">What</th>
                <th className="font-normal">Value</th>
                <th className="font-normal">From</th>
              </tr>
            </thead>
            <tbody>
              {sheet.notes.map((n) => (
                <tr key={n.what} className="border-t border-line align-top">
                  <td className="py-1.5 pr-3">{n.what}</td>
                  <td className="py-1.5 pr-3 font-semibold">{n.value}</td>
                  <td className="py-1.5">
                    {n.source}
                    {n.confidence === 'doubtful' && (
                      <Chip tone="brass" className="ml-1.5">
                        doubtful
                      </Chip>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </div>
    </Panel>
  )
}

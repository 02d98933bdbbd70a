import { useQuery } from '@tanstack/react-query'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'
import type { Source } from '@/api/types'
import { money } from '@/lib/money'
import { HEALTH_WORDS, lowerFirst, percent } from '@/lib/words'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { Chip } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import { DoesNotFit } from './does-not-fit'

export const useWorkbench = (tag: string, version: number) =>
  useQuery({
    queryKey: ['workbench', tag, version],
    queryFn: () => dataOf(client.GET('/api/jobs/{tag}/workbench', { params: { path: { tag } } })),
    placeholderData: (before) => before,
  })

/** What this unit can use, for one repair or for all: on the shelf, in donors, on its way. Taking a part moves stock. */
export function PartsThatFit({ repair }: { repair?: string }) {
  const { job } = useBench()
  const bench = useWorkbench(job.tag, job.version)
  return (
    <Asked of={bench} what="what fits">
      {(found) => {
        const usable = found.sources.flatMap((s) => (repair ? (s.repairs.includes(repair) ? [{ ...s, repairs: [repair] }] : []) : s.repairs.length > 0 ? [s] : []))
        const partly = repair ? [] : found.sources.filter((s) => s.repairs.length === 0)
        return (
          <>
            {usable.length === 0 && <p className="text-quiet">Nothing that is here, in a donor or on its way fits this unit.</p>}
            <SourceList sources={usable} />
            {partly.length > 0 && (
              <details className="mt-2">
                <summary className="min-h-11 cursor-pointer text-quiet underline underline-offset-2">Fits in part: {partly.length} for testing only</summary>
                <SourceList sources={partly} />
              </details>
            )}
          </>
        )
      }}
    </Asked>
  )
}

function SourceList({ sources }: { sources: Source[] }) {
  return (
    <ul className="divide-y divide-line">
      {sources.map((s) => (
        <SourceRow key={`${s.item} ${s.level}`} source={s} />
      ))}
    </ul>
  )
}

function SourceRow({ source: s }: { source: Source }) {
  const { job, send, isBusy, mayWork } = useBench()
  const names = new Map(job.repairs.map((r) => [r.id, r.name]))
  const wait = s.where === 'order' ? `about ${Math.round(s.wait_days)} days, nine in ten within ${Math.round(s.most_days)}` : s.place || 'no place written'
  return (
    <li className="flex flex-wrap items-center justify-between gap-2 py-1.5">
      <span className="min-w-0 flex-1">
        <b className="figures">{s.tag}</b> {s.level_name.toLowerCase()} <span className="figures">{s.code}</span>{' '}
        <Chip tone={s.verdict === 'part' ? 'brass' : 'clear'}>{s.verdict_name}</Chip>
        <span className="block text-tiny text-quiet">
          {{ shelf: 'on the shelf', donor: 'in the donor', order: 'on its way' }[s.where]}, {wait} · {HEALTH_WORDS[s.health]}
          {s.fails.length > 0 && `, fails: ${s.fails.join(', ')}`}
          {s.cents > 0 && ` · ${money(s.cents)}`}
          {s.p_cures > 0 && ` · mends this unit in ${percent(s.p_cures)}`}
        </span>
        {s.transfers.length > 0 && <span className="block text-tiny font-semibold">moves across: {s.transfers.join('; ')}</span>}
      </span>
      {mayWork && s.where !== 'order' && job.stage !== 'closed' && (
        <span className="flex flex-wrap gap-1.5">
          {s.repairs.map((r) => {
            const says = `${s.where === 'donor' ? 'Take it out' : 'Take it'}${s.repairs.length > 1 ? `: ${lowerFirst(names.get(r) ?? r)}` : ''}`
            return (
              <Button key={r} disabled={isBusy} onClick={() => send({ do: 'take_part', part: s.tag, repair: r }, `Take ${s.item}`)} aria-label={`${says}, ${s.item}`}>
                {says}
              </Button>
            )
          })}
          {s.repairs.length > 0 && <DoesNotFit source={s} />}
        </span>
      )}
    </li>
  )
}

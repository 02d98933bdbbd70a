import { useQuery } from '@tanstack/react-query'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'
import { dayOf } from '@/lib/dates'
import type { Inputs } from './inputs'
import { Drawing, short } from './pictures/drawing'

interface Props {
  tag: string
  about: string
  /** The state as it stands in the form: readings in another one are of no use here. */
  inputs: Inputs
  /** The sheet's limit, in the unit of the readings. */
  limit: { low?: unknown; high?: unknown }
}
const W = 560
const H = 150

/** The same points before: on this unit (whole) and on others of its model (hollow), with limits of their own once there are enough. */
export function RunChart({ tag, about, inputs, limit }: Props) {
  const query = { about, quantity: String(inputs.quantity) as 'voltage', mains: String(inputs.mains), disc: String(inputs.disc), switch: String(inputs.switch) }
  const asked = useQuery({ queryKey: ['run', tag, query], queryFn: () => dataOf(client.GET('/api/jobs/{tag}/run', { params: { path: { tag }, query } })) })
  const run = asked.data
  if (!run || run.readings.length === 0) return null
  const [from, to] = [limit.low, limit.high].map((x) => (typeof x === 'number' ? x : null))
  const values = [...run.readings.map((r) => r.value), ...[run.low, run.high, from, to].filter((x) => typeof x === 'number')]
  const [least, most] = [Math.min(...values), Math.max(...values)]
  const y = (v: number) => H - 25 - ((v - least) / (most - least || 1)) * (H - 55)
  const x = (n: number) => 40 + (n / Math.max(run.readings.length - 1, 1)) * (W - 80)
  const last = run.readings.at(-1)!
  return (
    <section aria-label="Read before" className="mt-4 space-y-1.5 border-t border-line pt-3">
      <p className="font-semibold">{run.says}</p>
      <p className="text-quiet">
        Last on {last.tag}, {dayOf(last.at)}.
      </p>
      <Drawing says={run.says} width={W} height={H}>
        {[from, to].map((v, n) => typeof v === 'number' && <line key={n} x1={30} x2={W - 30} y1={y(v)} y2={y(v)} stroke="var(--verdigris)" strokeWidth="2.5" />)}
        {run.low !== null && run.high !== null && <rect x={30} y={y(run.high)} width={W - 60} height={y(run.low) - y(run.high)} fill="var(--mat)" />}
        {run.median !== null && <line x1={30} x2={W - 30} y1={y(run.median)} y2={y(run.median)} stroke="var(--quiet)" strokeDasharray="6 5" />}
        {run.readings.map((r, n) => (
          <circle key={r.at + r.tag} cx={x(n)} cy={y(r.value)} r={7} fill={r.is_mine ? 'var(--ink)' : 'var(--paper)'} stroke="var(--ink)" strokeWidth="2.5" />
        ))}
        <text x={x(run.readings.length - 1)} y={y(last.value) - 13} textAnchor="end" className="figures" fontWeight="bold">
          {short(last.value)}
        </text>
      </Drawing>
      <p className="text-quiet">Whole: this unit. Hollow: others of its model. Green lines: the sheet’s limit.</p>
    </section>
  )
}

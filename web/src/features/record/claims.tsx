import { useQuery } from '@tanstack/react-query'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'
import type { Claim } from '@/api/types'
import { percent } from '@/lib/words'
import { Chip, Notice, Panel, Waiting } from '@/ui/panel'
import { Page } from '@/ui/sub-nav'
import { RecordNav } from './record-nav'

const FAMILIES: Record<string, string> = { tray: 'Tray load', slot: 'Slot load', lid: 'Lid load' }
const TONES = { holds: 'clear', 'does not hold': 'ember', 'too little to say': 'plain' } as const

/** Rules of thumb of the trade, each with this shop's own counts for and against it, model by model. */
export function ClaimsRegister() {
  const claims = useQuery({ queryKey: ['claims'], queryFn: () => dataOf(client.GET('/api/claims')) })
  const counted = [...(claims.data ?? [])].sort((a, b) => Number(b.counts.length > 0) - Number(a.counts.length > 0))
  const families = [...new Set(counted.map((c) => c.family))]
  return (
    <Page title="Claims register" lead="What the trade says, against what this shop’s own trials showed. A trial counts where one thing alone was changed. A rule that holds on one model need not hold on the next.">
      <RecordNav />
        {claims.isPending && <Waiting what="Counting trials…" />}
        {claims.isError && (
          <Notice tone="danger" title="The register could not be fetched" role="alert">
            {claims.error.message}
          </Notice>
        )}
        {families.map((f) => (
          <Panel key={f} title={FAMILIES[f] ?? f}>
            <table className="w-full text-left">
              <thead className="text-tiny text-quiet">
                <tr>
                  <th className="py-1 font-normal">The rule</th>
                  <th className="w-28 font-normal">Model</th>
                  <th className="w-14 text-right font-normal">For</th>
                  <th className="w-18 text-right font-normal">Against</th>
                  <th className="w-72 pl-5 font-normal">What the counts say</th>
                </tr>
              </thead>
              <tbody>{counted.filter((c) => c.family === f).map((c) => <Rule key={c.id} claim={c} />)}</tbody>
            </table>
          </Panel>
        ))}
    </Page>
  )
}

function Rule({ claim }: { claim: Claim }) {
  const meant = claim.limit > 0 ? `holds if ${claim.repair.toLowerCase()} works in at least ${percent(claim.limit)} of trials` : `holds if ${claim.repair.toLowerCase()} works in at most ${percent(-claim.limit)} of trials`
  if (claim.counts.length === 0)
    return (
      <tr className="border-t border-line align-top">
        <th scope="row" className="py-1.5 pr-3 font-normal">
          {claim.text}
          <span className="block text-tiny text-quiet">{meant}</span>
        </th>
        <td colSpan={4} className="py-1.5 text-quiet">
          no trial yet
        </td>
      </tr>
    )
  return claim.counts.map((n, i) => (
    <tr key={n.variant} className={`align-top ${i === 0 ? 'border-t border-line' : ''}`}>
      {i === 0 && (
        <th scope="row" rowSpan={claim.counts.length} className="py-1.5 pr-3 font-semibold">
          {claim.text}
          <span className="block text-tiny font-normal text-quiet">{meant}</span>
        </th>
      )}
      <td className="figures py-1.5">{n.variant}</td>
      <td className="figures py-1.5 text-right font-bold">{n.n_for}</td>
      <td className="figures py-1.5 text-right font-bold">{n.n_against}</td>
      <td className="py-1.5 pl-5">
        <Chip tone={TONES[n.verdict]}>{n.verdict}</Chip> <span className="text-tiny text-quiet">{percent(n.p_holds)} that it holds</span>
      </td>
    </tr>
  ))
}

import type { ReactNode } from 'react'
import type { Drive, Suspect } from '@/api/types'
import { SuspectRows } from '@/ui/suspect-rows'
import type { Run } from './practice-queries'

export type PlanProp = (drive: Drive, parts: readonly Suspect[]) => ReactNode

/** The next move, where the fault sits and the suspects, as on the bench: for who wants to be led. */
export function Advice({ advice, plan }: { advice: NonNullable<Run['advice']>; plan: PlanProp }) {
  return (
    <>
      <section aria-label="Next move" className="rounded-xl border-[1.5px] border-ink bg-paper p-4">
        <h2 className="text-[1.35rem] leading-tight font-bold">{advice.says}</h2>
        <p className="text-tiny text-quiet">What the planner would do next. A unit that was played so masters no lesson.</p>
      </section>
      <div className="grid rounded-xl border border-line bg-paper xl:grid-cols-[minmax(0,1fr)_18rem]">
        <div className="overflow-x-auto p-3">
          <h2 className="mb-1.5 font-bold">Where the fault sits, in percent</h2>
          <div className="mx-auto w-[28.5rem] max-w-full">{plan(advice.drive, advice.parts)}</div>
        </div>
        <div className="border-line p-4 max-xl:border-t xl:border-l">
          <h2 className="mb-1 font-bold">Suspects</h2>
          <SuspectRows rows={advice.suspects} />
        </div>
      </div>
    </>
  )
}

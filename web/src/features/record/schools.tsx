import { money } from '@/lib/money'
import { Asked } from '@/ui/asked'
import { Panel } from '@/ui/panel'
import { useSchools, type Schools } from './record-queries'

type Way = Schools['ways'][number]

/** The units whose cause was confirmed, played again by the advice and by each school: what each way would have cost. */
export function SchoolsPanel() {
  const asked = useSchools()
  return (
    <Panel title="The same units by other ways" aside={asked.data ? `${asked.data.played} of ${asked.data.of} closed jobs with a confirmed cause` : undefined}>
      <Asked of={asked} what="the other ways">
        {(found) => (found.ways.length === 0 ? <p className="text-quiet">Nothing to compare yet. A closed job counts here once its cause was confirmed; it is played again while the bench rests.</p> : <Found found={found} />)}
      </Asked>
    </Panel>
  )
}

function Found({ found }: { found: Schools }) {
  const reach = Math.max(1, ...found.ways.flatMap((w) => [Math.abs(w.low_cents), Math.abs(w.high_cents)]))
  return (
    <>
      <table className="w-full text-left">
        <thead className="text-tiny text-quiet">
          <tr>
            <th className="py-1 font-normal">Way</th>
            <th className="text-right font-normal">A unit costs</th>
            <th className="pr-6 pl-6 text-right font-normal">Against the advice</th>
            <th className="w-2/5 font-normal max-md:hidden" aria-hidden="true">
              <span className="flex justify-between">
                <span>cheaper</span>
                <span>dearer than the advice</span>
              </span>
            </th>
          </tr>
        </thead>
        <tbody>
          {found.ways.map((w) => (
            <tr key={w.way} className={`border-t border-line ${found.played < 20 ? 'text-quiet' : ''}`}>
              <th scope="row" className="py-2 font-semibold">
                {w.name}
              </th>
              <td className="figures text-right">{euro(w.mean_cents)}</td>
              <td className="pr-6 pl-6 text-right">{w.way === 'planner' ? '' : <Against way={w} />}</td>
              <td className="max-md:hidden">
                <Bar way={w} reach={reach} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {found.played < 20 && <p className="mt-2 text-tiny text-quiet">Under 20 units: too few to say.</p>}
      <p className="mt-3 max-w-[80ch] text-tiny text-quiet">
        Each unit is played four times in the models of today, with what was seen and tried on it as it was; what nobody looked at is drawn from the fault model, which is the advice’s own: that flatters the advice. Costs are minutes, parts, waiting, coming back and giving up by the shop’s own figures, nineteen times in twenty between the two that stand in brackets.
      </p>
      <a href="/api/record/schools.csv" download className="inline-flex min-h-11 items-center underline underline-offset-3">
        The table as CSV
      </a>
    </>
  )
}

/** Whole euros: the interval is wider than any cent. */
const euro = (cents: number): string => money(100 * Math.round(cents / 100))

const signed = (cents: number): string => (cents < 0 ? `−${euro(-cents)}` : `+${euro(cents)}`)

function Against({ way }: { way: Way }) {
  return (
    <>
      <b className="figures">{signed(way.more_cents)}</b>{' '}
      <span className="figures text-tiny text-quiet">
        ({signed(way.low_cents)} to {signed(way.high_cents)})
      </span>
    </>
  )
}

/** The difference as a point with its interval, to the right of the middle where the way is dearer. */
function Bar({ way, reach }: { way: Way; reach: number }) {
  const at = (cents: number) => 50 + (48 * cents) / reach
  return (
    <svg viewBox="0 0 100 12" preserveAspectRatio="none" className="block h-6 w-full" aria-hidden="true">
      <path d="M50 0V12" className="stroke-ink" strokeWidth="0.4" />
      {way.way !== 'planner' && (
        <>
          <path d={`M${at(way.low_cents)} 6H${at(way.high_cents)}`} className="stroke-ember" strokeWidth="1.4" />
          <path d={`M${at(way.more_cents)} 2V10`} className="stroke-ember-deep" strokeWidth="0.9" />
        </>
      )}
    </svg>
  )
}

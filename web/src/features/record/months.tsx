import { money } from '@/lib/money'
import { Asked } from '@/ui/asked'
import { Panel } from '@/ui/panel'
import { Page } from '@/ui/sub-nav'
import { RecordNav } from './record-nav'
import { useMonths, type Months } from './record-queries'

const monthOf = (first: string): string => new Intl.DateTimeFormat('en-GB', { month: 'short', year: 'numeric', timeZone: 'UTC' }).format(new Date(first))

/** The figures of the month, for who runs the shop. */
export function MonthsScreen() {
  const months = useMonths()
  return (
    <Page title="The months" lead="What came in and went out, by the shop’s own calendar. This month is not over yet.">
      <RecordNav />
      <Asked of={months} what="the months">
        {(found) => (
          <>
            <Panel
              title="Month by month"
              aside={
                <a href="/api/record/months.csv" download className="inline-flex min-h-11 items-center underline underline-offset-3">
                  As a table (CSV)
                </a>
              }
            >
              <div className="overflow-x-auto">
                <Table months={found.months} />
              </div>
            </Panel>
            <Suppliers of={found.suppliers} />
            <Panel title="On the shelf">
              <p>
                {money(found.stock_cents)} in {found.stock_pieces} pieces. <span className={found.lies_pieces > 0 ? 'font-semibold' : 'text-quiet'}>{found.lies_pieces === 0 ? 'Nothing of it has lain for over a year.' : `${money(found.lies_cents)} of it, ${found.lies_pieces} pieces, has lain for over a year.`}</span>
              </p>
            </Panel>
          </>
        )}
      </Asked>
    </Page>
  )
}

function Suppliers({ of }: { of: Months['suppliers'] }) {
  if (of.length === 0) return null
  return (
    <Panel title="Suppliers" aside="days from order to arrival, the slowest first">
      <div className="overflow-x-auto">
        <table className="w-full min-w-[38rem] text-right">
          <thead className="text-tiny text-quiet">
            <tr>
              <th className="py-1 text-left font-normal">From</th>
              {['Half within', 'Nine in ten within', 'Orders', 'On the way', 'Late'].map((h) => (
                <th key={h} className="pl-4 font-normal">
                  {h}
                </th>
              ))}
            </tr>
          </thead>
          <tbody className="figures">
            {of.map((s) => (
              <tr key={s.name} className={`border-t border-line ${s.n < 5 ? 'text-quiet' : ''}`}>
                <th scope="row" className="py-2 text-left font-semibold">
                  {s.name}
                </th>
                <td>{s.half_days.toFixed(0)} days</td>
                <td>{s.nine_days.toFixed(0)} days</td>
                <td>{s.n}</td>
                <td>{s.on_the_way}</td>
                <td className={s.late > 0 ? 'font-bold text-danger' : ''}>{s.late}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {of.some((s) => s.n < 5) && <p className="mt-2 text-tiny text-quiet">Grey rows rest on under five orders, and on what suppliers are like.</p>}
    </Panel>
  )
}

const HEADS = ['In', 'Out', 'Repaired', 'Late', 'Came back', 'Days, half took less', 'Paid']

function Table({ months }: { months: Months['months'] }) {
  return (
    <table className="w-full min-w-[46rem] text-right">
      <thead className="text-tiny text-quiet">
        <tr>
          <th className="py-1 text-left font-normal">Month</th>
          {HEADS.map((h) => (
            <th key={h} className="pl-4 font-normal">
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody className="figures">
        {months.map((m) => (
          <tr key={m.first} className={`border-t border-line ${m.taken_in + m.handed_back === 0 ? 'text-quiet' : ''}`}>
            <th scope="row" className="py-2 text-left font-semibold">
              {monthOf(m.first)}
            </th>
            <td>{m.taken_in}</td>
            <td>{m.handed_back}</td>
            <td>{m.handed_back === 0 ? '–' : `${m.repaired} of ${m.handed_back}`}</td>
            <td>{m.promised === 0 ? '–' : `${m.late} of ${m.promised}`}</td>
            <td>{m.came_back}</td>
            <td>{m.days === null ? '–' : m.days.toFixed(1)}</td>
            <td>
              {money(m.paid_cents)}
              {m.unpaid > 0 && <span className="block text-tiny text-quiet">{m.unpaid} not written down</span>}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

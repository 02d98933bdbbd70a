import { money } from '@/lib/money'
import { percent } from '@/lib/words'
import { Asked } from '@/ui/asked'
import { Notice, Panel } from '@/ui/panel'
import { Page } from '@/ui/sub-nav'
import { RecordNav } from './record-nav'
import { useAdvice, type Advice, type Reliability } from './record-queries'
import { ReliabilityPicture } from './reliability-picture'
import { SchoolsPanel } from './schools'

/** Of the repairs that were said to cure in seven of ten, did seven of ten cure? */
export function AdviceScreen() {
  const advice = useAdvice()
  return (
    <Page title="How good is the advice" lead="What was said of each repair when it was proposed, against what came of it on the bench.">
      <RecordNav />
      <Asked of={advice} what="the record">
        {(found) => (found.every.n === 0 ? <Notice title="Nothing to count yet">A job counts here once it is closed and a proposed repair was tried in it.</Notice> : <Found advice={found} />)}
      </Asked>
      <SchoolsPanel />
    </Page>
  )
}

function Found({ advice }: { advice: Advice }) {
  const { every, followed, chosen } = advice
  return (
    <>
      <Panel title="Said, and come true" aside={`${every.n} repairs tried, in ${advice.jobs} closed jobs`}>
        <div className="grid gap-5 lg:grid-cols-[24rem_minmax(0,1fr)]">
          <ReliabilityPicture of={every} />
          <Table of={every} />
        </div>
      </Panel>
      <Panel title="In figures">
        <dl className="grid gap-x-6 gap-y-4 sm:grid-cols-2 lg:grid-cols-4">
          <Figure name="Off by, on average" value={percent(every.error)} isEnough={every.is_enough} note="between what was said and what came true" />
          <Figure name="Better than the average alone" value={every.log_loss < every.base_log_loss ? 'yes' : 'no'} isEnough={every.is_enough} note={`${every.log_loss.toFixed(2)} nat a repair, against ${every.base_log_loss.toFixed(2)}`} />
          <Figure name="Parts that cured nothing" value={advice.parts_for_nothing.toFixed(2)} isEnough={advice.jobs >= 20} note="a closed job" />
          <Figure name="The advice’s first choice" value={shareOf(followed)} isEnough={followed.is_enough} note={`cured, of ${followed.n} tried; another one: ${shareOf(chosen)} of ${chosen.n}`} />
          <OfShare name="Cause named first" of={advice.first} note="confirmed causes, when the fault had been seen" />
          <OfShare name="Cause among the first three" of={advice.first_three} note="confirmed causes" />
          <OfShare name="Proven, and came back" of={advice.proven_back} note="units, inside the guarantee" />
          <OfShare name="Probable, and came back" of={advice.probable_back} note="units, inside the guarantee" />
          <Figure name="Paid over the first offer" value={over(advice.money.mean_cents)} isEnough={advice.money.is_enough} note={`on average of ${advice.money.n}; four of five between ${over(advice.money.low_cents)} and ${over(advice.money.high_cents)}`} />
        </dl>
        <p className="mt-3 max-w-[80ch] text-tiny text-quiet">Units in which the advice was followed and units in which it was not are not the same units: a hard one is left to the technician’s own mind more often. The difference between the two says nothing of what would have happened the other way.</p>
      </Panel>
    </>
  )
}

const shareOf = (r: Reliability): string => {
  const came = r.groups.reduce((sum, g) => sum + g.came, 0)
  return r.n === 0 ? 'none' : percent(came / r.n)
}

const over = (cents: number): string => (cents < 0 ? `−${money(-cents)}` : `+${money(cents)}`)

function OfShare({ name, of, note }: { name: string; of: Advice['first']; note: string }) {
  return <Figure name={name} value={of.n === 0 ? '–' : percent(of.k / of.n)} isEnough={of.is_enough} note={of.n === 0 ? note : `${of.k} of ${of.n} ${note}; nineteen times in twenty between ${percent(of.low)} and ${percent(of.high)}`} />
}

function Figure({ name, value, note, isEnough }: { name: string; value: string; note: string; isEnough: boolean }) {
  return (
    <div className={isEnough ? '' : 'text-quiet'}>
      <dt className="text-quiet">{name}</dt>
      <dd className="figures text-[1.6rem] font-bold leading-tight">{value}</dd>
      <dd className="text-tiny text-quiet">{isEnough ? note : `too few to say: ${note}`}</dd>
    </div>
  )
}

function Table({ of }: { of: Reliability }) {
  return (
    <div>
      <table className="w-full text-left">
        <thead className="text-tiny text-quiet">
          <tr>
            <th className="py-1 font-normal">Said to cure in</th>
            <th className="text-right font-normal">Tried</th>
            <th className="text-right font-normal">Cured</th>
            <th className="pl-6 font-normal">That is</th>
          </tr>
        </thead>
        <tbody>
          {of.groups.map((g) => (
            <tr key={g.said} className={`border-t border-line ${g.n < 20 ? 'text-quiet' : ''}`}>
              <th scope="row" className="figures py-2 font-semibold">
                {percent(g.said)}
              </th>
              <td className="figures text-right">{g.n}</td>
              <td className="figures text-right">{g.came}</td>
              <td className="pl-6">
                {percent(g.came / g.n)}, <span className="text-quiet">nineteen times in twenty between {percent(g.low)} and {percent(g.high)}</span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {of.groups.some((g) => g.n < 20) && <p className="mt-2 text-tiny text-quiet">Rows of under 20 repairs are grey: too few to say.</p>}
    </div>
  )
}

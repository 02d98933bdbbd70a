import { useEffect, useRef, useState } from 'react'
import { Button } from '@/ui/button'
import { Chip, Notice } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import { HandsOut, useHandsOut } from '../frame/holds'
import { isOff, MainsButton, useMains } from '../frame/mains'
import { useMatKeys } from '../frame/mat-keys'
import { useIsSendingPhoto } from '../photos/photo-queries'
import { BeforeAndNow } from '../photos/before-and-now'
import { TakePhoto } from '../photos/take-photo'
import { Looks } from './looks'
import { SheetsPicture } from './sheets-picture'
import type { MatStep, MoveOn } from './mat-queries'

interface Props {
  step: MatStep
  move: MoveOn
  isBack: boolean
}

/** The step that is next, in or back: what to know before it, how it lets go, or what is looked at as it goes back; Enter does it. */
export function StepCard({ step, move, isBack }: Props) {
  const { job, send, mayWork, isBusy } = useBench()
  const [way, setWay] = useState('')
  const wants = isOff(step, job) ? 'out' : null
  const setMains = useMains()
  const heading = useFocusUnlessTyping()
  const isSending = useIsSendingPhoto()
  const hands = useHandsOut(true)
  const mark = mayWork && !isBusy && !isSending && !hands ? () => send({ do: 'open_step', step: step.id, is_open: !isBack, way, turned_to: move.turn_to }, `${isBack ? 'Back' : 'Opened'}: ${step.name}`) : undefined
  useMatKeys('steps', { Enter: wants ? setMains('out') : mark }, { inDialog: true })
  return (
    <section aria-label="Next" aria-live="polite" className="rounded-xl border-[1.5px] border-ink bg-paper px-4 py-3">
      <h3 ref={heading} tabIndex={-1} className="text-[1.7rem] leading-tight font-bold outline-none">
        {isBack ? 'Back: ' : ''}
        {step.name}
      </h3>
      <Turn move={move} />
      <Looks texts={isBack ? step.checks : step.looks} />
      <Photos step={step} isBack={isBack} />
      {!isBack && step.ways.length > 0 && <Disputed step={step} way={way} onPick={setWay} />}
      <div className="mt-3">
        {hands && !wants && <HandsOut hold={hands} inDialog />}
        {wants ? (
          <MainsButton to="out" hotkey="Enter" className="min-h-14! text-[1.25rem]" />
        ) : (
          <Button kind="act" hotkey="Enter" className="min-h-14! text-[1.25rem]" disabled={!mark} onClick={mark}>
            {wordFor(isSending, isBack)}
          </Button>
        )}
      </div>
    </section>
  )
}

const wordFor = (isSending: boolean, isBack: boolean): string => (isSending ? 'The photo is on its way…' : isBack ? 'Seen and back' : 'Done')

/** The step that is next has the focus, so that Enter does it and closes nothing; who types goes on typing. */
function useFocusUnlessTyping() {
  const heading = useRef<HTMLHeadingElement>(null)
  useEffect(() => {
    if (!document.activeElement?.matches('input:not([type=radio], [type=checkbox]), select, textarea')) heading.current?.focus({ preventScroll: true })
  }, [])
  return heading
}

function Turn({ move }: { move: MoveOn }) {
  if (!move.turn_to) return null
  return (
    <p className="mt-1 text-[1.1rem]">
      <b>Turn it:</b> {move.turn_to} up.
      {move.falls.length > 0 && (
        <span className="text-brass">
          {' '}
          <b>Hold or tape first, it falls out:</b> {move.falls.join('; ')}.
        </span>
      )}
    </p>
  )
}

/** Before something routed or with a way round is undone a photo is asked for; as it goes back it stands beside how it is now. */
function Photos({ step, isBack }: { step: MatStep; isBack: boolean }) {
  return (
    <>
      <SheetsPicture step={step} />
      <BeforeAndNow of={step.id} />
      {isBack && <TakePhoto of={step.id} moment="now" label="Photo of it now" />}
      {!isBack && step.photo_first && (
        <>
          <p className="my-1.5 max-w-[75ch] rounded-md bg-brass-soft px-2.5 py-1">A photo first, with the place in sight: what is routed or has a way round is put back by it.</p>
          <TakePhoto of={step.id} moment="before" label="Photo before" />
        </>
      )}
    </>
  )
}

/** Where shops do it in more than one way, all stand there with their risk; which was taken can be written down. */
function Disputed({ step, way, onPick }: { step: MatStep; way: string; onPick: (way: string) => void }) {
  return (
    <fieldset className="mt-2">
      <legend className="font-semibold">Shops do this in {step.ways.length} ways</legend>
      <div className="grid gap-2 sm:grid-cols-2">
        {step.ways.map((w) => (
          <label key={w.name} className="relative flex cursor-pointer items-start gap-2.5 rounded-lg border border-ink/45 p-2.5 has-checked:border-[1.5px] has-checked:border-ink has-focus-visible:outline-3 has-focus-visible:outline-verdigris">
            <input type="radio" name={`way-${step.id}`} className="mt-1 size-5 shrink-0" checked={way === w.name} onChange={() => onPick(w.name)} />
            <span>
              <b>{w.name}</b>
              <span className="block">{w.how}</span>
              <span className="block text-brass">Risk: {w.risk}</span>
              {w.when && <Chip>when {w.when}</Chip>}
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  )
}

/** Nothing is left to do in this direction. */
export function AllDone({ isBack, goal }: { isBack: boolean; goal: string }) {
  return <Notice title={isBack ? 'Nothing is open' : `It is open as far as that${goal ? `: ${goal}` : ''}`}>{isBack ? 'Every step is back, every screw in its place or explained.' : 'Pick another place to get to, or put back what is open.'}</Notice>
}

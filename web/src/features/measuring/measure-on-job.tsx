import { useState } from 'react'
import type { Tool } from '@/api/types'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { Calculator, type Kept, type Start } from './calculator'
import { useTools } from './measuring-queries'

interface Props {
  tag: string
  /** The question that is to be answered; empty for anything. */
  question: string
  power: string
  onKeep: (kept: Kept) => void
}
interface Picked {
  tool: Tool
  start?: Start
}

/** Measuring for a job: what its sheet names is picked by name, and filled in already. */
export function MeasureOnJob({ tag, question, power, onKeep }: Props) {
  const tools = useTools(tag)
  const [picked, setPicked] = useState<Picked | null>(null)
  return (
    <Asked of={tools} what="the calculators">
      {(found) => {
        const asked = found.filter((t) => t.questions.includes(question))
        const fitting = asked.length > 0 ? asked : found
        const [only] = fitting
        const here = picked ?? (fitting.length === 1 && only && only.starts.length <= 1 ? { tool: only, ...(only.starts[0] && { start: only.starts[0] as Start }) } : null)
        if (!here) return <Pick tools={fitting} onPick={setPicked} />
        return (
          <>
            <p className="mb-3 flex flex-wrap items-center gap-x-3">
              <b className="text-[1.1rem]">
                {here.tool.title}
                {here.start && `, ${here.start.name}`}
              </b>
              <Button kind="quiet" onClick={() => setPicked(null)}>
                Something else
              </Button>
            </p>
            <Calculator key={`${here.tool.id} ${here.start?.name ?? ''}`} tool={here.tool} tag={tag} {...(here.start && { start: here.start })} question={question} power={power} onKeep={onKeep} />
          </>
        )
      }}
    </Asked>
  )
}

function Pick({ tools, onPick }: { tools: readonly Tool[]; onPick: (picked: Picked) => void }) {
  return (
    <ul className="divide-y divide-line rounded-lg border border-line">
      {tools.map((tool) => (
        <li key={tool.id} className="grid items-center gap-x-4 gap-y-1 p-2.5 sm:grid-cols-[10rem_minmax(0,1fr)]">
          <div>
            <b>{tool.title}</b>
          </div>
          <div className="flex flex-wrap gap-1.5">
            {tool.starts.map((start) => (
              <Button key={start.name} onClick={() => onPick({ tool, start: start as Start })}>
                {start.name}
              </Button>
            ))}
            <Button kind={tool.starts.length > 0 ? 'quiet' : 'plain'} onClick={() => onPick({ tool })}>
              {tool.starts.length > 0 ? 'Another one' : 'Measure it'}
            </Button>
          </div>
        </li>
      ))}
    </ul>
  )
}

import { useState } from 'react'
import { useKeys } from '@/lib/use-keys'
import { Tabs } from '@/ui/tabs'
import { useBench } from '../frame/bench-context'
import { Levels } from '../parts/levels'
import { PartsThatFit } from '../parts/parts-that-fit'
import { Schools } from './schools'
import { SignalPath } from './signal-path'
import { SwapTable } from './swap-table'

/** What stands beside the next move: the signal path, swaps, what fits, levels of repair, and what the schools would cost. */
export function Beside({ onTrial, onPart }: { onTrial: (repair: string) => void; onPart: () => void }) {
  const { job } = useBench()
  const [view, setView] = useState('path')
  useKeys({ p: () => setView('path'), x: () => setView('swaps'), b: () => setView('parts'), v: () => setView('levels'), g: () => setView('schools') })
  return (
    <Tabs
      label="Beside the next move"
      value={view}
      onChange={setView}
      tabs={[
        { id: 'path', name: 'Signal path', hotkey: 'P', content: <SignalPath paths={job.diagnosis.paths} /> },
        { id: 'swaps', name: 'Swaps and parts', hotkey: 'X', content: <SwapTable swaps={job.diagnosis.swaps} onTrial={onTrial} onPart={onPart} /> },
        { id: 'parts', name: 'Parts that fit', hotkey: 'B', content: <PartsThatFit /> },
        { id: 'levels', name: 'Levels', hotkey: 'V', content: <Levels /> },
        { id: 'schools', name: 'Schools', hotkey: 'G', content: <Schools /> },
      ]}
    />
  )
}

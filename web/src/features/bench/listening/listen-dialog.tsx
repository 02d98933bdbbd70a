import { useState } from 'react'
import { timeOf } from '@/lib/dates'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { FileButton } from '@/ui/file-button'
import { Chip, Notice, Waiting } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import { KeepSound } from './keep-sound'
import { RecordPanel } from './record-panel'
import { SoundSheet } from './sound-sheet'
import { useSounds, type Sound } from './sound-queries'

/** The recordings of a job: make one, load one, see what is heard in each and take what is right of it. */
export function ListenDialog({ onClose }: { onClose: () => void }) {
  const { job, mayWork } = useBench()
  const [made, setMade] = useState<Blob | null>(null)
  const [picked, setPicked] = useState<number | null>(null)
  const asked = useSounds(job)
  const sounds = asked.data?.sounds ?? []
  const sound = sounds.find((s) => s.line === picked)
  const title = `Sounds of ${job.tag}`
  if (made)
    return (
      <Dialog title={title} open isWide onClose={onClose}>
        <KeepSound recording={made} did={asked.data?.did ?? []} before={sounds[0]} onKept={() => setMade(null)} onDrop={() => setMade(null)} />
      </Dialog>
    )
  return (
    <Dialog title={title} open isWide onClose={onClose}>
      {asked.error && (
        <Notice tone="danger" title="The recordings cannot be shown" role="alert">
          <p>{asked.error.message}</p>
          <Button className="mt-1.5" onClick={() => void asked.refetch()}>
            Try again
          </Button>
        </Notice>
      )}
      {asked.isPending && <Waiting what="Listening…" />}
      {sound && asked.data ? (
        <SoundSheet key={sound.line} sound={sound} lanes={asked.data.lanes} onBack={() => setPicked(null)} />
      ) : (
        <div className="space-y-4">
          {mayWork && (
            <RecordPanel
              onDone={setMade}
              aside={
                <FileButton label="A recording from a file" accept=".wav,audio/wav,audio/x-wav" onFile={setMade}>
                  From a file
                </FileButton>
              }
            />
          )}
          {asked.data && sounds.length === 0 && (
            <p className="text-quiet">No recording yet. One can be played again, counted by two people alike, and laid beside the next one after a repair.</p>
          )}
          <ul className="space-y-2">
            {sounds.map((s) => (
              <li key={s.line}>
                <SoundRow sound={s} did={asked.data?.did.find((d) => d.id === s.did)?.name ?? ''} onOpen={() => setPicked(s.line)} />
              </li>
            ))}
          </ul>
          {asked.data && <p className="text-tiny text-quiet">{asked.data.kept}</p>}
        </div>
      )}
    </Dialog>
  )
}

function SoundRow({ sound, did, onOpen }: { sound: Sound; did: string; onOpen: () => void }) {
  const open = sound.is_older ? 0 : sound.offers.filter((o) => o.outcome && o.taken === null && o.seen === null).length
  return (
    <button type="button" onClick={onOpen} className="block w-full rounded-lg border border-line bg-paper px-4 py-2.5 text-left hover:border-ink">
      <span className="flex flex-wrap items-baseline gap-x-3">
        <b>
          {did}, {sound.length_s.toFixed(0)} s
        </b>
        <span className="text-quiet">
          {timeOf(sound.at)}, {sound.by}
        </span>
        {sound.grade === 'poor' && <Chip tone="brass">poor recording</Chip>}
        {sound.is_reference && <Chip tone="clear">healthy reference</Chip>}
        {!sound.is_here && <Chip>its file is gone</Chip>}
        {open > 0 && <Chip tone="ember">{open === 1 ? 'an answer to look at' : `${open} answers to look at`}</Chip>}
      </span>
      <span className="block text-quiet">{sound.says}</span>
    </button>
  )
}

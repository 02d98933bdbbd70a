import { useState } from 'react'
import { Link } from 'react-router'
import { useSheetForm } from '@/api/sheets'
import { useMay } from '@/api/session'
import type { Part } from '@/api/types'
import { money } from '@/lib/money'
import { functionWord } from '@/lib/words'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { PrintLabels } from '@/ui/labels'
import { Notice, Panel } from '@/ui/panel'
import { Health } from './health'
import { ListFile } from './list-file'
import { ReceiveDialog } from './receive-dialog'
import { ShelfPage } from './shelf-page'
import { useParts } from './shelf-queries'

const BOX = 'min-h-11 rounded-lg border border-ink/55 bg-paper px-3'

/** What lies on the shelf now. */
export function ShelfHere() {
  const [words, setWords] = useState('')
  const [level, setLevel] = useState('')
  const [usedUp, setUsedUp] = useState(false)
  const [isReceiving, setReceiving] = useState(false)
  const parts = useParts(words.trim(), level, usedUp)
  const levels = useSheetForm()
  const may = useMay('shelf')
  return (
    <ShelfPage lead="What is here, with where it came from and what it was seen to do." actions={may && <Button onClick={() => setReceiving(true)}>Put a part on the shelf</Button>}>
      <Panel>
        <div className="flex flex-wrap items-center gap-3">
          <label className="flex items-center gap-2">
            <span className="sr-only">Search the shelf</span>
            <input className={`${BOX} w-64`} placeholder="Code, tag, name or drawer" value={words} maxLength={120} onChange={(e) => setWords(e.target.value)} />
          </label>
          <label className="flex items-center gap-2">
            <span className="sr-only">Level</span>
            <select className={BOX} value={level} onChange={(e) => setLevel(e.target.value)}>
              <option value="">Every level</option>
              {levels.data?.levels.map((l) => (
                <option key={l.id} value={l.id}>
                  {l.name}
                </option>
              ))}
            </select>
          </label>
          <label className="inline-flex min-h-11 items-center gap-2">
            <input type="checkbox" className="size-5" checked={usedUp} onChange={(e) => setUsedUp(e.target.checked)} />
            Used up as well
          </label>
          {parts.data && parts.data.length > 0 && (
            <PrintLabels tags={parts.data.map((p) => p.tag)} className="ml-auto">{`Print labels of these ${parts.data.length}`}</PrintLabels>
          )}
        </div>
      </Panel>
      <Asked of={parts} what="the shelf">
        {(found) =>
          found.length === 0 ? (
            <Notice title={words || level ? 'Nothing on the shelf fits that' : 'The shelf is empty'}>
              {words || level ? 'Other words, another level, or what is used up as well.' : 'Put a part on it, order one, or harvest a donor.'}
            </Notice>
          ) : (
            <PartsTable parts={found} />
          )
        }
      </Asked>
      {may && <ListFile />}
      {isReceiving && <ReceiveDialog onClose={() => setReceiving(false)} />}
    </ShelfPage>
  )
}

function PartsTable({ parts }: { parts: Part[] }) {
  return (
    <Panel>
      <div className="relative overflow-x-auto">
        <table className="w-full text-left">
          <thead className="text-tiny text-quiet">
            <tr>
              <th className="py-1 font-normal">Tag</th>
              <th className="font-normal">Part</th>
              <th className="pr-4 text-right font-normal">Here</th>
              <th className="font-normal">Known</th>
              <th className="font-normal">Where</th>
              <th className="text-right font-normal">A piece</th>
            </tr>
          </thead>
          <tbody>
            {parts.map((p) => (
              <tr key={p.tag} className="border-t border-line align-top">
                <th scope="row" className="py-0.5 pr-3 font-normal">
                  <Link to={`/shelf/parts/${p.tag}`} className="figures inline-flex min-h-11 min-w-11 items-center font-semibold underline underline-offset-2">
                    {p.tag}
                  </Link>
                </th>
                <td className="py-2.5 pr-3">
                  {p.name}
                  <span className="block text-tiny text-quiet">
                    {p.level_name}
                    {p.origin && (
                      <>
                        {' '}
                        out of <span className="figures">{p.origin}</span>
                      </>
                    )}
                  </span>
                </td>
                <td className={`figures py-2.5 pr-4 text-right font-bold ${p.count === 0 ? 'text-quiet' : ''}`}>{p.count}</td>
                <td className="py-2.5 pr-3">
                  <Health health={p.health} />
                  {p.works.length > 0 && <span className="block text-tiny text-verdigris">works: {p.works.map((f) => functionWord(f)).join(', ')}</span>}
                  {p.fails.length > 0 && <span className="block text-tiny text-ember-deep">fails: {p.fails.map((f) => functionWord(f)).join(', ')}</span>}
                </td>
                <td className="py-2.5 pr-3">{p.place || '–'}</td>
                <td className="figures py-2.5 text-right">{p.piece_cents ? money(p.piece_cents) : '–'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {parts.length >= 60 && <p className="mt-2 text-quiet">The first 60 are shown: search to see others.</p>}
    </Panel>
  )
}

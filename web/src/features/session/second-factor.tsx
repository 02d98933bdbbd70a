import { useState } from 'react'
import { useBeginFactor, useFactorOff, useFactorOn } from '@/api/session'
import { Button } from '@/ui/button'
import { TextField } from '@/ui/field'
import { Chip, Notice, Panel } from '@/ui/panel'

/** A code of half a minute beside the password: begun by a square, on from the first code that is right. */
export function SecondFactor({ isOn, onPaper }: { isOn: boolean; onPaper: number }) {
  const [paper, setPaper] = useState<string[]>([])
  return (
    <Panel title="A second factor" aside={<Chip tone={isOn ? 'clear' : 'plain'}>{isOn ? 'on' : 'off'}</Chip>}>
      {paper.length > 0 && <Paper codes={paper} onKept={() => setPaper([])} />}
      {isOn ? <On onPaper={onPaper} /> : <Off onCodes={setPaper} />}
    </Panel>
  )
}

function Paper({ codes, onKept }: { codes: string[]; onKept: () => void }) {
  return (
    <div className="mb-3">
      <Notice tone="brass" title="Write these down now: they are shown once">
        <p>Each lets you in once, if the device is lost.</p>
        <ul className="figures mt-2 grid max-w-md grid-cols-2 gap-x-6 gap-y-1 font-semibold">
          {codes.map((code) => (
            <li key={code}>{code}</li>
          ))}
        </ul>
        <Button className="mt-3" onClick={onKept}>
          They are on paper
        </Button>
      </Notice>
    </div>
  )
}

function Off({ onCodes }: { onCodes: (codes: string[]) => void }) {
  const begin = useBeginFactor()
  const on = useFactorOn()
  const [code, setCode] = useState('')
  if (!begin.data)
    return (
      <>
        <p className="max-w-[70ch]">With it, a password alone opens nothing: the door also asks for a code from a device that you carry. Whoever runs the shop should have one.</p>
        {begin.error && (
          <Notice tone="danger" role="alert">
            {begin.error.message}
          </Notice>
        )}
        <Button kind="act" className="mt-3" disabled={begin.isPending} onClick={() => begin.mutate()}>
          Set it up
        </Button>
      </>
    )
  return (
    <form
      className="grid gap-5 sm:grid-cols-[auto_minmax(0,1fr)]"
      onSubmit={(event) => {
        event.preventDefault()
        on.mutate(code, { onSuccess: ({ codes }) => onCodes(codes) })
      }}
    >
      <img src={begin.data.square} alt="A square to scan with the device" className="size-52 rounded-lg border border-line" />
      <div className="space-y-3">
        <p>
          Scan the square with the device, or type this into it: <span className="figures font-semibold break-all">{begin.data.secret}</span>
        </p>
        <div className="max-w-48">
          <TextField label="The code that it shows" inputMode="numeric" autoComplete="one-time-code" value={code} maxLength={10} onChange={(e) => setCode(e.target.value)} required />
        </div>
        {on.error && (
          <Notice tone="danger" role="alert">
            {on.error.message}
          </Notice>
        )}
        <Button kind="act" type="submit" disabled={on.isPending || code.trim() === ''}>
          Switch it on
        </Button>
      </div>
    </form>
  )
}

function On({ onPaper }: { onPaper: number }) {
  const off = useFactorOff()
  const [password, setPassword] = useState('')
  return (
    <form
      className="space-y-3"
      onSubmit={(event) => {
        event.preventDefault()
        off.mutate(password)
      }}
    >
      <p>
        The door asks for a code. On paper there {onPaper === 1 ? 'is one code' : `are ${onPaper} codes`} left.
      </p>
      <div className="max-w-64">
        <TextField label="Your password, to switch it off" type="password" autoComplete="current-password" value={password} maxLength={120} onChange={(e) => setPassword(e.target.value)} required />
      </div>
      {off.error && (
        <Notice tone="danger" role="alert">
          {off.error.message}
        </Notice>
      )}
      <Button type="submit" disabled={off.isPending || password === ''}>
        Switch it off
      </Button>
    </form>
  )
}

import { useState } from 'react'
import { useOwnPassword, useSession, useSignOut } from '@/api/session'
import { Button } from '@/ui/button'
import { TextField } from '@/ui/field'
import { Notice } from '@/ui/panel'

/** One's own password, changed: the old one, and the new one twice. */
export function OwnPassword({ onDone }: { onDone: () => void }) {
  const change = useOwnPassword()
  const [old, setOld] = useState('')
  const [fresh, setFresh] = useState('')
  const [again, setAgain] = useState('')
  const differs = again !== '' && again !== fresh
  return (
    <form
      className="space-y-4"
      onSubmit={(event) => {
        event.preventDefault()
        if (old && fresh && fresh === again) change.mutate({ old, new: fresh }, { onSuccess: onDone })
      }}
    >
      <TextField label="Old password" type="password" value={old} onChange={(e) => setOld(e.target.value)} autoComplete="current-password" maxLength={120} required />
      <TextField label="New password" hint="Ten characters or more. Three plain words are easier to keep than one strange one." type="password" value={fresh} onChange={(e) => setFresh(e.target.value)} autoComplete="new-password" maxLength={120} required />
      <TextField label="The new one again" type="password" value={again} error={differs ? 'The two differ.' : undefined} onChange={(e) => setAgain(e.target.value)} autoComplete="new-password" maxLength={120} required />
      {change.error && (
        <Notice tone="danger" title="Not changed" role="alert">
          {change.error.message}
        </Notice>
      )}
      <Button kind="act" type="submit" disabled={change.isPending || !old || !fresh || fresh !== again}>
        {change.isPending ? 'Changing…' : 'Change it'}
      </Button>
    </form>
  )
}

/** Whoever signs in with a password that somebody else chose, chooses one first. */
export function FirstPassword() {
  const session = useSession()
  const signOut = useSignOut()
  return (
    <div className="mat-grid flex h-full justify-center overflow-y-auto p-6 pt-[8vh]">
      <section aria-label="A password of your own" className="h-fit w-full max-w-md space-y-4 rounded-xl border border-line bg-paper p-6">
        <h1 className="text-[1.4rem] font-bold">Welcome, {session.data?.user?.name}</h1>
        <p className="text-quiet">Somebody else knows the password that you signed in with. Choose one of your own, and the work begins.</p>
        <OwnPassword onDone={() => undefined} />
        <Button kind="quiet" onClick={() => signOut.mutate()}>
          Sign out
        </Button>
      </section>
    </div>
  )
}

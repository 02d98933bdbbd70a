import { useState } from 'react'
import { reasonOf } from '@/api/problem'
import { useSession, useSignIn } from '@/api/session'
import { Button } from '@/ui/button'
import { TextField } from '@/ui/field'
import { Notice } from '@/ui/panel'

export function SignInForm() {
  const shop = useSession().data?.shop.name
  const signIn = useSignIn()
  const [username, setUsername] = useState('')
  const [password, setPassword] = useState('')
  const [code, setCode] = useState('')
  const reason = reasonOf(signIn.error)
  const [wantsCode, setWantsCode] = useState(false)
  if (reason === 'code_wanted' && !wantsCode) setWantsCode(true)
  return (
    <div className="mat-grid flex min-h-full justify-center p-6 pt-[12vh]">
      <form
        className="h-fit w-full max-w-sm space-y-4 rounded-xl border border-line bg-paper p-6"
        onSubmit={(event) => {
          event.preventDefault()
          signIn.mutate({ username, password, code })
        }}
      >
        <div>
          <h1 className="text-[1.4rem] font-bold">Sign in</h1>
          <p className="text-quiet">{shop}</p>
        </div>
        <TextField label="Name" value={username} onChange={(e) => setUsername(e.target.value)} autoComplete="username" maxLength={120} required autoFocus />
        <TextField label="Password" type="password" value={password} onChange={(e) => setPassword(e.target.value)} autoComplete="current-password" maxLength={120} required />
        {wantsCode && (
          <TextField label="Code" hint="From your device, or one from paper." value={code} onChange={(e) => setCode(e.target.value)} autoComplete="one-time-code" maxLength={20} autoFocus required />
        )}
        {signIn.error && reason !== 'code_wanted' && (
          <Notice tone="danger" role="alert">
            {signIn.error.message}
          </Notice>
        )}
        <Button kind="act" type="submit" disabled={signIn.isPending}>
          {signIn.isPending ? 'Signing in…' : 'Sign in'}
        </Button>
      </form>
    </div>
  )
}

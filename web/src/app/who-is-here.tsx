import { useState } from 'react'
import { useSignOut } from '@/api/session'
import type { Session } from '@/api/types'
import { kept } from '@/lib/kept'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'

interface Props {
  user: NonNullable<Session['user']>
  isLampOn: boolean
  onLamp: () => void
}

export function WhoIsHere({ user, isLampOn, onLamp }: Props) {
  const signOut = useSignOut()
  const [unsent, setUnsent] = useState<string[]>([])
  const leave = () => {
    const left = kept.unsent(user.username)
    if (left.length > 0) setUnsent(left)
    else signOut.mutate()
  }
  const look = 'min-h-10 rounded-lg border border-on-bar/35 px-2.5 text-tiny hover:border-on-bar'
  return (
    <div className="flex items-center gap-2">
      <span className="text-tiny leading-tight max-xl:sr-only">
        {user.name}
        <br />
        <span className="opacity-80">{user.role}</span>
      </span>
      <button type="button" className={look} aria-pressed={!isLampOn} onClick={onLamp}>
        Lamp off
      </button>
      <button type="button" className={look} onClick={leave}>
        Sign out
      </button>
      <Dialog title="Something of yours is not written yet" open={unsent.length > 0} onClose={() => setUnsent([])} note="Signing out leaves it out: nobody else may send it.">
        <ul className="mb-4 list-disc pl-5">
          {unsent.map((says) => (
            <li key={says}>{says}</li>
          ))}
        </ul>
        <div className="flex flex-wrap gap-2">
          <Button kind="act" onClick={() => setUnsent([])}>
            Stay, and let it be sent
          </Button>
          <Button
            onClick={() => {
              setUnsent([])
              signOut.mutate()
            }}
          >
            Leave it out and sign out
          </Button>
        </div>
      </Dialog>
    </div>
  )
}

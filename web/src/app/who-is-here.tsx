import { useSignOut } from '@/api/session'
import type { Session } from '@/api/types'

interface Props {
  user: NonNullable<Session['user']>
  isLampOn: boolean
  onLamp: () => void
}

export function WhoIsHere({ user, isLampOn, onLamp }: Props) {
  const signOut = useSignOut()
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
      <button type="button" className={look} onClick={() => signOut.mutate()}>
        Sign out
      </button>
    </div>
  )
}

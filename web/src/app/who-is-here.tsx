import { useState } from 'react'
import { useNavigate } from 'react-router'
import { useMay, useSignOut } from '@/api/session'
import type { Session } from '@/api/types'
import { kept } from '@/lib/kept'
import { OwnPassword } from '@/routes/sign-in'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { Menu } from '@/ui/menu'

interface Props {
  user: NonNullable<Session['user']>
  isLampOn: boolean
  onLamp: () => void
}

/** Who is signed in, and what is theirs: password, lamp, the shop for who may, the way out. */
export function WhoIsHere({ user, isLampOn, onLamp }: Props) {
  const signOut = useSignOut()
  const navigate = useNavigate()
  const maySet = useMay('shop')
  const [unsent, setUnsent] = useState<string[]>([])
  const [isChanging, setChanging] = useState(false)
  const leave = () => {
    const left = kept.unsent(user.username)
    if (left.length > 0) setUnsent(left)
    else signOut.mutate()
  }
  const items = [
    { says: 'Calculators of the bench', onPick: () => void navigate('/bench/tools') },
    { says: maySet ? 'The shop: figures, people, what it has' : 'What this shop has', onPick: () => void navigate(maySet ? '/shop' : '/shop/has') },
    { says: 'My account: where I am signed in, second factor', onPick: () => void navigate('/account') },
    { says: 'Change my password', onPick: () => setChanging(true) },
    { says: isLampOn ? 'Lamp off (dark)' : 'Lamp on (light)', onPick: onLamp },
    { says: 'Sign out', onPick: leave },
  ]
  return (
    <>
      <Menu label={`${user.name}, ${user.role}: account and shop`} title={`${user.name}, ${user.role}`} items={items} trigger={<Name user={user} />} />
      <Dialog title="Change my password" open={isChanging} onClose={() => setChanging(false)} note="Everywhere else where you are signed in, you are signed out by it.">
        <OwnPassword onDone={() => setChanging(false)} />
      </Dialog>
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
    </>
  )
}

const initials = (name: string): string =>
  name
    .split(' ')
    .map((word) => word.charAt(0))
    .slice(0, 2)
    .join('')

function Name({ user }: { user: Props['user'] }) {
  return (
    <>
      <span className="font-semibold xl:hidden" aria-hidden="true">
        {initials(user.name)}
      </span>
      <span className="text-tiny max-xl:hidden">
        {user.name}
        <br />
        <span className="opacity-80">{user.role}</span>
      </span>
    </>
  )
}

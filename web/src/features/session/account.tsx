import { useAccount, useEndOthers } from '@/api/session'
import { dayOf, timeOf } from '@/lib/dates'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { Chip, Notice, Panel } from '@/ui/panel'
import { Page } from '@/ui/sub-nav'
import { SecondFactor } from './second-factor'

/** What is one's own: where one is signed in, and what is asked for at the door. */
export function AccountScreen() {
  const account = useAccount()
  return (
    <Page title="My account" lead="Where you are signed in, and what the door asks of you.">
      <Asked of={account} what="your account">
        {(found) => (
          <>
            <Sessions sessions={found.sessions} />
            <SecondFactor isOn={found.has_factor} onPaper={found.on_paper} />
          </>
        )}
      </Asked>
    </Page>
  )
}

interface Session {
  device: string
  began_at: string | null
  is_this: boolean
}

function Sessions({ sessions }: { sessions: Session[] }) {
  const end = useEndOthers()
  const others = sessions.filter((s) => !s.is_this).length
  return (
    <Panel title="Signed in" aside={others === 0 ? 'here alone' : `here, and in ${others} other ${others === 1 ? 'place' : 'places'}`}>
      <ul className="divide-y divide-line">
        {sessions.map((s, n) => (
          <li key={n} className="flex flex-wrap items-center gap-x-3 py-2.5">
            <span className="min-w-28 font-semibold">{s.device ? `On a ${s.device}` : 'Somewhere'}</span>
            <span className="text-quiet">{s.began_at ? `since ${dayOf(s.began_at)}, ${timeOf(s.began_at)}` : ''}</span>
            {s.is_this && <Chip tone="clear">this one</Chip>}
          </li>
        ))}
      </ul>
      {end.error && (
        <Notice tone="danger" role="alert">
          {end.error.message}
        </Notice>
      )}
      {others > 0 && (
        <Button className="mt-2" disabled={end.isPending} onClick={() => end.mutate(undefined)}>
          Sign out everywhere else
        </Button>
      )}
    </Panel>
  )
}

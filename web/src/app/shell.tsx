import { useEffect } from 'react'
import { NavLink, Outlet, ScrollRestoration } from 'react-router'
import { useSession } from '@/api/session'
import { useKept } from '@/lib/kept'
import { SignIn } from '@/routes/sign-in'
import { Mark } from '@/ui/mark'
import { Notice, Waiting } from '@/ui/panel'
import { TOP_BAR_END } from '@/ui/top-bar-end'
import { Search } from './search'
import { WhoIsHere } from './who-is-here'

const places = [
  { to: '/day', name: 'Day' },
  { to: '/bench', name: 'Bench' },
  { to: '/drives', name: 'Drives' },
  { to: '/shelf', name: 'Shelf' },
  { to: '/track-record', name: 'Track record' },
]

export function Shell() {
  const session = useSession()
  const [lamp, setLamp] = useKept<'on' | 'off'>('lamp', 'on')
  useEffect(() => {
    document.documentElement.dataset.lamp = lamp
  }, [lamp])
  const user = session.data?.user
  return (
    <div className="flex min-h-screen flex-col lg:h-screen">
      <a href="#main" className="sr-only z-50 rounded bg-paper p-3 focus:not-sr-only focus:absolute">
        Skip to the work
      </a>
      <header className="flex min-h-13 flex-wrap items-center gap-x-4 gap-y-1 bg-bar px-4 py-1.5 text-on-bar">
        <span className="flex items-center gap-2.5 text-[1.1rem] font-bold">
          <Mark /> Tidy Spindle
        </span>
        {user && (
          <>
            <nav aria-label="Main" className="flex gap-1">
              {places.map((p) => (
                <NavLink
                  key={p.to}
                  to={p.to}
                  className={({ isActive }) =>
                    `inline-flex min-h-10 items-center border-b-3 px-3 ${isActive ? 'border-[#d9732f] font-semibold' : 'border-transparent hover:border-on-bar/40'}`
                  }
                >
                  {p.name}
                </NavLink>
              ))}
            </nav>
            <div className="ml-auto flex flex-wrap items-center gap-2">
              <Search />
              <WhoIsHere user={user} isLampOn={lamp === 'on'} onLamp={() => setLamp(lamp === 'on' ? 'off' : 'on')} />
              <div id={TOP_BAR_END} />
            </div>
          </>
        )}
      </header>
      <main id="main" className="min-h-0 flex-1">
        {session.isPending && <Waiting what="Looking who is here…" />}
        {session.isError && (
          <div className="p-8">
            <Notice tone="danger" title="No connection to the server" role="alert">
              Is it running? This page tries again by itself when it is loaded again.
            </Notice>
          </div>
        )}
        {session.data && (user ? <Outlet /> : <SignIn />)}
      </main>
      <ScrollRestoration />
    </div>
  )
}

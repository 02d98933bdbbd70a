import { useEffect } from 'react'
import { NavLink, Outlet, ScrollRestoration, useNavigate } from 'react-router'
import { useSession } from '@/api/session'
import { useKept } from '@/lib/kept'
import { FirstPassword, SignIn } from '@/routes/sign-in'
import { Mark } from '@/ui/mark'
import { Menu } from '@/ui/menu'
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
  { to: '/practice', name: 'Practice' },
]

function PlacesIcon() {
  return (
    <svg viewBox="0 0 24 24" className="size-5" aria-hidden="true" fill="none" stroke="currentColor" strokeWidth="2" strokeLinecap="round">
      <path d="M4 7h16M4 12h16M4 17h10" />
    </svg>
  )
}

export function Shell() {
  const session = useSession()
  const navigate = useNavigate()
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
      <header className="relative z-30 flex min-h-14 items-center gap-x-2 bg-bar px-2.5 py-1.5 text-on-bar max-lg:sticky max-lg:top-0 md:gap-x-4 md:px-4">
        <span className="flex items-center gap-2.5 text-[1.1rem] font-bold whitespace-nowrap">
          <Mark /> <span className="max-xl:sr-only">Tidy Spindle</span>
        </span>
        {user && !user.has_first_password && (
          <>
            <div className="md:hidden">
              <Menu label="Places" trigger={<PlacesIcon />} title="Where to?" items={places.map((p) => ({ says: p.name, onPick: () => void navigate(p.to) }))} />
            </div>
            <nav aria-label="Main" className="flex gap-1 max-md:hidden">
              {places.map((p) => (
                <NavLink
                  key={p.to}
                  to={p.to}
                  className={({ isActive }) =>
                    `inline-flex min-h-11 items-center border-b-3 px-3 ${isActive ? 'border-[#d9732f] font-semibold' : 'border-transparent hover:border-on-bar/40'}`
                  }
                >
                  {p.name}
                </NavLink>
              ))}
            </nav>
            <div className="ml-auto flex items-center gap-1.5 md:gap-2">
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
        {session.data && (!user ? <SignIn /> : user.has_first_password ? <FirstPassword /> : <Outlet />)}
      </main>
      <ScrollRestoration />
    </div>
  )
}

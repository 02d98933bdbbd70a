import type { ReactNode } from 'react'
import { useLocation } from 'react-router'
import { Page, SubNav } from '@/ui/sub-nav'
import { useAway } from './shelf-queries'

const VIEWS = [
  { to: '/shelf', name: 'Here' },
  { to: '/shelf/wanted', name: 'Wanted' },
  { to: '/shelf/coming', name: 'On its way' },
  { to: '/shelf/donors', name: 'Donors' },
  { to: '/shelf/away', name: 'Out of its unit' },
  { to: '/shelf/count', name: 'Stock-take' },
] as const

/** A view of the shelf under its own heading; what is out of its unit is counted wherever one looks. */
export function ShelfPage({ lead, actions, children }: { lead: string; actions?: ReactNode; children: ReactNode }) {
  const away = useAway()
  const here = useLocation().pathname
  return (
    <Page name={`Shelf: ${(VIEWS.find((v) => v.to === here) ?? VIEWS[0]).name.toLowerCase()}`} title="Shelf" lead={lead} actions={actions}>
      <SubNav label="Shelf" views={VIEWS.map((v) => (v.to === '/shelf/away' ? { ...v, count: away.data?.length } : v))} />
      {children}
    </Page>
  )
}

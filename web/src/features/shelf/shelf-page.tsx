import type { ReactNode } from 'react'
import { Page, SubNav } from '@/ui/sub-nav'
import { useAway } from './shelf-queries'

/** A view of the shelf under its own heading; what is out of its unit is counted wherever one looks. */
export function ShelfPage({ lead, actions, children }: { lead: string; actions?: ReactNode; children: ReactNode }) {
  const away = useAway()
  return (
    <Page title="Shelf" lead={lead} actions={actions}>
      <SubNav
        label="Shelf"
        views={[
          { to: '/shelf', name: 'Here' },
          { to: '/shelf/wanted', name: 'Wanted' },
          { to: '/shelf/coming', name: 'On its way' },
          { to: '/shelf/donors', name: 'Donors' },
          { to: '/shelf/away', name: 'Out of its unit', count: away.data?.length },
        ]}
      />
      {children}
    </Page>
  )
}

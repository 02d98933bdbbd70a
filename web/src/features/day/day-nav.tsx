import { SubNav } from '@/ui/sub-nav'

export const DayNav = ({ count }: { count?: number | undefined }) => (
  <SubNav
    label="Day"
    views={[
      { to: '/day', name: 'In the house', count },
      { to: '/day/week', name: 'The week' },
      { to: '/day/closed', name: 'Closed' },
    ]}
  />
)

import { SubNav } from '@/ui/sub-nav'

export const DrivesNav = () => (
  <SubNav
    label="Drives"
    views={[
      { to: '/drives', name: 'Sheets' },
      { to: '/drives/which', name: 'Which drive is this?' },
      { to: '/drives/fits', name: 'What fits where' },
    ]}
  />
)

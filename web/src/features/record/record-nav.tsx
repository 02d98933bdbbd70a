import { useMay } from '@/api/session'
import { SubNav } from '@/ui/sub-nav'

export function RecordNav() {
  const isManager = useMay('shop')
  return (
    <SubNav
      label="Track record"
      views={[
        { to: '/track-record', name: 'How good is the advice' },
        { to: '/track-record/learning', name: 'What the jobs teach' },
        ...(isManager ? [{ to: '/track-record/months', name: 'The months' }] : []),
        { to: '/track-record/claims', name: 'Claims' },
      ]}
    />
  )
}

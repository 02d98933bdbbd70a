import { useMay } from '@/api/session'
import { SubNav } from '@/ui/sub-nav'

export function ShopNav() {
  const maySet = useMay('shop')
  const has = { to: '/shop/has', name: 'What it has' }
  const views = maySet ? [{ to: '/shop', name: 'Figures' }, { to: '/shop/people', name: 'People' }, has, { to: '/shop/archive', name: 'Out and in' }] : [has]
  return <SubNav label="The shop" views={views} />
}

import { AccountScreen } from '@/features/session/account'

export const Account = () => <AccountScreen />

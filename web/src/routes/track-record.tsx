import { AdviceScreen } from '@/features/record/advice'
import { ClaimsRegister } from '@/features/record/claims'
import { MonthsScreen } from '@/features/record/months'

export const TrackRecord = () => <AdviceScreen />
export const Months = () => <MonthsScreen />
export const Claims = () => <ClaimsRegister />

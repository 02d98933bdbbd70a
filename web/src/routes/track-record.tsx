import { AdviceScreen } from '@/features/record/advice'
import { ClaimsRegister } from '@/features/record/claims'
import { LearningScreen } from '@/features/record/learning'
import { MonthsScreen } from '@/features/record/months'

export const TrackRecord = () => <AdviceScreen />
export const Months = () => <MonthsScreen />
export const Claims = () => <ClaimsRegister />
export const Learning = () => <LearningScreen />

import { WeekScreen } from '@/features/day/week-screen'

export const Week = () => <WeekScreen />

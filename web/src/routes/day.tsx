import { DayList } from '@/features/day/day-list'

export const Day = () => <DayList />

import { ClosedList } from '@/features/day/closed-list'

export const Closed = () => <ClosedList />

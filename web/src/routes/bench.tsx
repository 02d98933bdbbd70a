import { BenchList } from '@/features/day/bench-list'

export const Bench = () => <BenchList />

import { ShelfAway } from '@/features/shelf/away'
import { ShelfComing } from '@/features/shelf/coming'
import { DonorScreen } from '@/features/shelf/donor-screen'
import { ShelfDonors } from '@/features/shelf/donors'
import { ShelfHere } from '@/features/shelf/here'
import { PartScreen } from '@/features/shelf/part-screen'
import { StockTake } from '@/features/shelf/stock-take'
import { ShelfWanted } from '@/features/shelf/wanted'

export const Here = () => <ShelfHere />
export const WantedPage = () => <ShelfWanted />
export const Coming = () => <ShelfComing />
export const Donors = () => <ShelfDonors />
export const DonorPage = () => <DonorScreen />
export const Away = () => <ShelfAway />
export const PartPage = () => <PartScreen />
export const CountPage = () => <StockTake />

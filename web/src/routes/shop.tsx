import { Archive } from '@/features/shop/archive'
import { FiguresForm } from '@/features/shop/figures'
import { Instruments } from '@/features/shop/instruments'
import { People as Staff } from '@/features/shop/people'

export const Figures = () => <FiguresForm />
export const People = () => <Staff />
export const Has = () => <Instruments />
export const OutAndIn = () => <Archive />

import { SheetList } from '@/features/drives/sheet-list'

export const Drives = () => <SheetList />

import { ConsoleEditor } from '@/features/drives/console-editor'
import { FitsScreen } from '@/features/drives/fits'
import { Gallery } from '@/features/drives/gallery'
import { SheetEditor } from '@/features/drives/sheet-editor'
import { SheetScreen } from '@/features/drives/sheet-screen'
import { WhichDrive } from '@/features/drives/which-drive'

export const Drives = () => <Gallery />
export const Which = () => <WhichDrive />
export const FitsPage = () => <FitsScreen />
export const DriveSheet = () => <SheetScreen />
export const EditSheet = () => <SheetEditor />
export const EditConsole = () => <ConsoleEditor />

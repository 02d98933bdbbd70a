import { ToolsPage } from '@/features/measuring/measuring-page'

export const Tools = () => <ToolsPage />

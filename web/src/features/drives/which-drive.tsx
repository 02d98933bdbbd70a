import { Panel } from '@/ui/panel'
import { Page } from '@/ui/sub-nav'
import { DrivesNav } from './drives-nav'
import { Identify } from './identify'

/** The identification key on a page of its own. */
export function WhichDrive() {
  return (
    <Page name="Which drive is this?" title="Drives" lead="Which drive lies in front of you, from what the eye can see.">
      <DrivesNav />
      <Panel>
        <Identify />
      </Panel>
    </Page>
  )
}

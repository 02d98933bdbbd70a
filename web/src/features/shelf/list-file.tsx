import { FileButton } from '@/ui/file-button'
import { FileLink } from '@/ui/file-link'
import { Notice, Panel } from '@/ui/panel'
import { useTakeList } from './shelf-queries'

/** The shelf in a spreadsheet: saved, changed there, taken in again. */
export function ListFile() {
  const take = useTakeList()
  return (
    <Panel title="In a spreadsheet">
      <p className="max-w-3xl text-quiet">
        A row without a tag comes onto the shelf. Of the others, what is here, lot, drawer and price are put right; an empty cell changes nothing. A list with a mistake changes nothing at all.
      </p>
      <div className="mt-3 flex flex-wrap gap-2">
        <FileLink href="/api/shelf/list.csv">Save the shelf (CSV)</FileLink>
        <FileButton label="The shelf from a CSV file" kind="plain" accept=".csv,text/csv" disabled={take.isPending} onFile={(file) => take.mutate({ file })}>
          {take.isPending ? 'Reading…' : 'Take a list in'}
        </FileButton>
      </div>
      <div className="mt-3 empty:hidden">
        {take.isError && (
          <Notice tone="danger" title="Nothing was changed" role="alert">
            {take.error.message}
          </Notice>
        )}
        {take.data !== undefined && !take.isError && (
          <Notice title="Taken in" role="status">
            {`New on the shelf: ${take.data.new}. Put right: ${take.data.put_right}. As they were: ${take.data.same}.`}
          </Notice>
        )}
      </div>
    </Panel>
  )
}

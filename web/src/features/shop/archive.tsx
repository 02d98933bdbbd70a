import { useMutation, useQueryClient } from '@tanstack/react-query'
import { client } from '@/api/client'
import { asForm } from '@/api/once'
import { dataOf } from '@/api/problem'
import type { components } from '@/api/schema'
import { FileButton } from '@/ui/file-button'
import { FileLink } from '@/ui/file-link'
import { Notice, Panel } from '@/ui/panel'
import { Page } from '@/ui/sub-nav'
import { ShopNav } from './shop-nav'

type Taken = components['schemas']['ArchiveTakenView']

/** Takes an archive in. It is whole or not at all, and the same one twice changes nothing: no key is needed. */
function useTakeArchive() {
  const cache = useQueryClient()
  return useMutation({
    networkMode: 'always',
    onSettled: () => cache.invalidateQueries(),
    mutationFn: (file: File) => {
      const body = new FormData()
      body.set('file', file)
      return dataOf(client.POST('/api/archive', { body: body as never, ...asForm }))
    },
  })
}

/** Everything that the shop has, out and in, in an open format. */
export function Archive() {
  const take = useTakeArchive()
  return (
    <Page title="Everything in one file" lead="An open format: one ZIP with a line for each row, photos and recordings as they are. Any program can read it.">
      <ShopNav />
      <Panel title="Take it out" className="max-w-2xl">
        <p>Jobs with their tapes, photos and recordings, sheets, shelf, orders, figures, people, what was learnt. People can go on working meanwhile.</p>
        <p className="mt-2 text-quiet">Left out: passwords, sign-ins and secret addresses. To get a broken machine back, use the backup instead.</p>
        <div className="mt-4">
          <FileLink kind="act" href="/api/archive">
            Save the whole shop
          </FileLink>
        </div>
      </Panel>
      <Panel title="Take one in" className="max-w-2xl">
        <p>A shop’s file, or one closed job from another shop. What is not here is added. If something is here already and the file says otherwise, the file is refused and nothing is changed.</p>
        <p className="mt-2 text-quiet">People who come along cannot sign in until you give them a password.</p>
        <div className="mt-4 space-y-3">
          <FileButton label="A shop’s file, or a closed job’s" kind="plain" accept=".zip,application/zip" onFile={(file) => take.mutate(file)} disabled={take.isPending}>
            {take.isPending ? 'Being checked and taken in…' : 'Choose a file'}
          </FileButton>
          {take.isError && (
            <Notice tone="danger" title="Nothing was changed" role="alert">
              {take.error.message}
            </Notice>
          )}
          {take.data !== undefined && <TakenIn taken={take.data} />}
        </div>
      </Panel>
    </Page>
  )
}

function TakenIn({ taken }: { taken: Taken }) {
  const added = taken.tables.filter((t) => t.added > 0)
  return (
    <div role="status" className="space-y-3 pt-1">
      <p className="font-semibold">{added.length === 0 ? 'Everything in it was here already.' : 'Taken in.'}</p>
      <table className="w-full text-left">
        <thead className="text-quiet">
          <tr>
            <th className="py-1 font-normal">What</th>
            <th className="py-1 text-right font-normal">Added</th>
            <th className="py-1 text-right font-normal">Here already</th>
          </tr>
        </thead>
        <tbody className="divide-y divide-line">
          {taken.tables.map((t) => (
            <tr key={t.name}>
              <td className="py-1 first-letter:uppercase">{t.says}</td>
              <td className="figures py-1 text-right">{t.added}</td>
              <td className="figures py-1 text-right text-quiet">{t.alike}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {taken.missing.length > 0 && (
        <Notice tone="brass" title={`Photos or recordings that are not in the file: ${taken.missing.length}`}>
          Their rows are here; the pictures themselves have to come from a backup of the other shop.
        </Notice>
      )}
    </div>
  )
}

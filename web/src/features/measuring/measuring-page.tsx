import { Link, useParams, useSearchParams } from 'react-router'
import type { Tool } from '@/api/types'
import { Asked } from '@/ui/asked'
import { Page } from '@/ui/sub-nav'
import { Notice } from '@/ui/panel'
import { Calculator, type Start } from './calculator'
import { useTools } from './measuring-queries'

/** The calculators of the bench without a job: nothing of it is kept. */
export function ToolsPage() {
  const { tool: picked } = useParams()
  const tools = useTools()
  return (
    <Asked of={tools} what="the calculators">
      {(found) => {
        const tool = found.find((t) => t.id === picked)
        return tool ? <One tool={tool} /> : <All tools={found} isLost={picked !== undefined} />
      }}
    </Asked>
  )
}

function All({ tools, isLost }: { tools: readonly Tool[]; isLost: boolean }) {
  return (
    <Page title="Calculators of the bench" lead="Here they stand alone: nothing is kept. On a job (M) they know its drive’s sheet, and what they find goes on its tape.">
      {isLost && <Notice tone="brass">There is no such calculator. These there are.</Notice>}
      <ul className="grid gap-3 sm:grid-cols-2 lg:grid-cols-3">
        {tools.map((t) => (
          <li key={t.id}>
            <Link to={`/bench/tools/${t.id}`} className="block h-full min-h-24 rounded-xl border border-line bg-paper p-4 hover:border-ink">
              <b className="text-[1.2rem]">{t.title}</b>
              <p className="mt-1 text-quiet">{t.about}</p>
            </Link>
          </li>
        ))}
      </ul>
    </Page>
  )
}

function One({ tool }: { tool: Tool }) {
  const [query] = useSearchParams()
  return (
    <Page title={tool.title} lead={tool.about}>
      <Link to="/bench/tools" className="inline-flex min-h-11 items-center underline underline-offset-3">
        All calculators
      </Link>
      <div className="rounded-xl border border-line bg-paper p-4">
        <Calculator key={`${tool.id} ${query}`} tool={tool} {...(tool.starts[0] && { start: tool.starts[0] as Start })} />
      </div>
    </Page>
  )
}

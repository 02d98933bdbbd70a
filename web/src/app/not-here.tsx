import { Link, useRouteError } from 'react-router'
import { useTitle } from '@/lib/use-title'
import { Notice } from '@/ui/panel'

export function NotHere() {
  useTitle('No such page')
  return (
    <div className="mx-auto max-w-2xl p-8">
      <Notice title="There is no such page">
        <p>
          The address may be mistyped. <Link to="/day" className="underline">Go to the day</Link>, or scan a tag in the search field.
        </p>
      </Notice>
    </div>
  )
}

export function Broken() {
  const error = useRouteError()
  return (
    <div className="mx-auto max-w-2xl p-8">
      <Notice tone="danger" title="This screen broke" role="alert">
        <p>What you did is kept. Load the page again; if it breaks again, tell whoever looks after the application:</p>
        <p className="figures mt-1">{error instanceof Error ? error.message : String(error)}</p>
        <p className="mt-2">
          <a href="/day" className="underline">Load the day</a>
        </p>
      </Notice>
    </div>
  )
}

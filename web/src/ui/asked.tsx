import type { UseQueryResult } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { Button } from './button'
import { Notice, Waiting } from './panel'

/** What was asked of the server: waiting, failed with a way to ask again, or here. */
export function Asked<T>({ of, what, children }: { of: UseQueryResult<T>; what: string; children: (data: T) => ReactNode }) {
  if (of.isPending) return <Waiting what={`Fetching ${what}…`} />
  if (of.data === undefined)
    return (
      <Notice tone="danger" title={`Could not fetch ${what}`} role="alert">
        <p>{of.error?.message}</p>
        <Button className="mt-2" onClick={() => void of.refetch()}>
          Try again
        </Button>
      </Notice>
    )
  return children(of.data)
}

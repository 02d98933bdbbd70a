import { useQuery } from '@tanstack/react-query'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'
import type { Move } from '@/api/types'
import { money } from '@/lib/money'
import { percent } from '@/lib/words'
import { Button } from '@/ui/button'
import { useBench } from '../frame/bench-context'

const whole = (cents: number) => money(Math.round(cents / 100) * 100)

const QUIET_MS = 1_200

/** Wait until nothing was answered for a moment: who answers quickly is never slowed by a look that is out of date at once. */
const quiet = (signal: AbortSignal) =>
  new Promise<void>((resolve, reject) => {
    const timer = setTimeout(resolve, QUIET_MS)
    signal.addEventListener('abort', () => {
      clearTimeout(timer)
      reject(signal.reason as Error)
    })
  })

/** Two steps ahead, and the money by simulated futures. It comes a moment later and never moves what is under a finger. */
export function Deeper({ onShow }: { onShow: (move: Move) => void }) {
  const { job } = useBench()
  const looked = useQuery({
    queryKey: ['outlook', job.tag, job.version],
    queryFn: async ({ signal }) => {
      await quiet(signal)
      return dataOf(client.GET('/api/jobs/{tag}/outlook', { params: { path: { tag: job.tag } }, signal }))
    },
    staleTime: Infinity,
    retry: 1,
  })
  const found = looked.data
  return (
    <p className="mt-2 min-h-11 max-w-[80ch] border-t border-line pt-2 text-[0.95rem] text-quiet" aria-live="polite">
      {looked.isPending && 'Looking two steps ahead…'}
      {looked.isError && 'Two steps ahead could not be looked at: the move above stands on one.'}
      {found && (
        <>
          From here about <b className="figures text-ink">{whole(found.median_cents)}</b>; four times in five between {whole(found.low_cents)} and {whole(found.high_cents)}. Repaired in {percent(found.p_repaired)} of 40
          simulated futures.{' '}
          {found.is_same ? (
            'Two steps ahead: the same move.'
          ) : (
            <Button kind="quiet" className="px-1!" onClick={() => onShow(found.first)}>
              Two steps ahead would rather: {found.first.title}
            </Button>
          )}
        </>
      )}
    </p>
  )
}

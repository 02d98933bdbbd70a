import { lazy, Suspense } from 'react'
import { useParams } from 'react-router'
import { BenchScreen } from '@/features/bench/bench-screen'
import { DrivePlan } from '@/features/drives/drive-plan'
import { Waiting } from '@/ui/panel'

// what a bench seldom needs comes when it is asked for
const AmendForm = lazy(async () => ({ default: (await import('@/features/intake/amend-form')).AmendForm }))
const Identify = lazy(async () => ({ default: (await import('@/features/drives/identify')).Identify }))
const Measure = lazy(async () => ({ default: (await import('@/features/measuring/measure-on-job')).MeasureOnJob }))
const waiting = <Waiting what="Fetching…" />

export function JobScreen() {
  const tag = useParams().tag!
  return (
    <BenchScreen
      key={tag}
      tag={tag}
      plan={(drive, parts) => <DrivePlan drive={drive} parts={parts} />}
      identify={(start, onPick) => (
        <Suspense fallback={waiting}>
          <Identify start={start} onPick={onPick} />
        </Suspense>
      )}
      measure={(at) => (
        <Suspense fallback={waiting}>
          <Measure {...at} />
        </Suspense>
      )}
      counter={(job, send) => (
        <Suspense fallback={waiting}>
          <AmendForm job={job} onSave={send} />
        </Suspense>
      )}
    />
  )
}

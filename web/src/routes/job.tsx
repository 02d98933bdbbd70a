import { useParams } from 'react-router'
import { BenchScreen } from '@/features/bench/bench-screen'
import { DrivePlan } from '@/features/drives/drive-plan'
import { Identify } from '@/features/drives/identify'
import { AmendForm } from '@/features/intake/amend-form'

export function JobScreen() {
  const tag = useParams().tag!
  return (
    <BenchScreen
      key={tag}
      tag={tag}
      plan={(drive, parts) => <DrivePlan drive={drive} parts={parts} />}
      identify={(start, onPick) => <Identify start={start} onPick={onPick} />}
      counter={(job, send) => <AmendForm job={job} onSave={send} />}
    />
  )
}

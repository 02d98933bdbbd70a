import { useParams } from 'react-router'
import { DrivePlan } from '@/features/drives/drive-plan'
import { LessonsScreen } from '@/features/practice/lessons-screen'
import { RunScreen } from '@/features/practice/run-screen'

export const Lessons = () => <LessonsScreen />

export function PracticeRun() {
  const { id = '' } = useParams()
  return <RunScreen key={id} id={Number(id)} plan={(drive, parts) => <DrivePlan drive={drive} parts={parts} />} />
}

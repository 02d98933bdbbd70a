import { useQuery } from '@tanstack/react-query'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'
import type { Job, UnitMat } from '@/api/types'

/** What is open, what lies on the mat, and the way to a goal and back; '' is where the job's work has to get. */
export const useUnitMat = (job: Job, goal: string) =>
  useQuery({
    queryKey: ['mat', job.tag, job.version, goal],
    queryFn: () => dataOf<UnitMat>(client.GET('/api/jobs/{tag}/mat', { params: { path: { tag: job.tag }, query: { goal } } })),
    retry: false,
    placeholderData: (before) => before,
  })

export type MatStep = UnitMat['steps'][number]
export type MatGroup = MatStep['groups'][number]
export type MatPlace = MatGroup['places'][number]
export type MoveOn = UnitMat['way_in']['moves'][number]

import { useQuery } from '@tanstack/react-query'
import { client } from '@/api/client'
import { useOnce } from '@/api/once'
import { dataOf } from '@/api/problem'
import { useSendFile } from '@/api/send-file'
import type { Follows } from '@/api/waiting-files'
import type { components } from '@/api/schema'
import type { Job } from '@/api/types'

export type Sounds = components['schemas']['SoundsView']
export type Sound = Sounds['sounds'][number]
export type SoundEvent = Sound['events'][number]
export type Offer = Sound['offers'][number]

/** What is heard in a job's recordings, and what it would move now. */
export const useSounds = (job: Job) =>
  useQuery({
    queryKey: ['sounds', job.tag, job.version],
    queryFn: () => dataOf(client.GET('/api/jobs/{tag}/sounds', { params: { path: { tag: job.tag } } })),
    placeholderData: (before) => before,
  })

export const useSendSound = (onKept: (hash: string, follows: Follows) => void) => useSendFile('/api/sounds', 'recording.wav', onKept)

export const useSayReference = (job: Job) =>
  useOnce(
    (body: { key: string; line: number; is_reference: boolean }) => dataOf(client.POST('/api/jobs/{tag}/sounds/reference', { params: { path: { tag: job.tag } }, body })),
    ['sounds'],
  )

export const soundAt = (hash: string): string => `/api/sounds/${hash}`
export const pictureAt = (hash: string): string => `/api/sounds/${hash}/picture`

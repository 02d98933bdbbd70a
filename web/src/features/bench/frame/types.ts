import type { Move } from '@/api/types'

export type { Question } from '@/api/types'
export type AnswerPreview = Move['answers'][number]

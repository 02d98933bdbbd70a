import type { components } from './schema'

export type Problem = components['schemas']['ProblemDocument']

/** A refusal of the server, in its own words: nothing was written. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.title)
  }
}

/** No answer that can be trusted came: the network is down, the server or its database is. It may have been written: the same key asks again. */
export class NoAnswerError extends Error {
  constructor(says = 'No connection to the server. What you typed is kept: try again in a moment.') {
    super(says)
  }
}

/** What the server says when the session has ended. */
export const isSignedOut = (error: unknown): boolean => error instanceof ProblemError && error.problem.code === 'signed_out'

/** What it says when the page's token has run out: the session may have ended with it. */
export const isOutOfDate = (error: unknown): boolean => error instanceof ProblemError && error.problem.code === 'csrf'

/** Why the server refused, in one word of its own; "" where it said none. */
export const reasonOf = (error: unknown): string => (error instanceof ProblemError ? String(error.problem.params.reason ?? '') : '')

type Answer<T> = { data?: T; error?: unknown; response: Response }

/** The data of an answer, or the error that it amounts to. A server that broke may have written first: that is no refusal. */
export async function dataOf<T>(asked: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>
  try {
    answer = await asked
  } catch {
    throw new NoAnswerError()
  }
  if (answer.data !== undefined) return answer.data
  const problem = answer.error as Partial<Problem> | undefined
  if (answer.response.status >= 500) throw new NoAnswerError(problem?.title)
  if (problem?.code) throw new ProblemError(problem as Problem)
  throw new ProblemError({ status: answer.response.status, code: 'unexpected', title: 'The server refused this without a word. Load the page again.', params: {} })
}

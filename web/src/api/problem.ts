import type { components } from './schema'

export type Problem = components['schemas']['Problem']

/** A refusal of the server, in its own words. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.title)
  }
}

/** No answer came: the network is down, or the server is. */
export class NoAnswerError extends Error {
  constructor() {
    super('No connection to the server. What you typed is kept: try again in a moment.')
  }
}

type Answer<T> = { data?: T; error?: unknown; response: Response }

/** The data of an answer, or the error that it amounts to. */
export async function dataOf<T>(asked: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>
  try {
    answer = await asked
  } catch {
    throw new NoAnswerError()
  }
  if (answer.data !== undefined) return answer.data
  const problem = answer.error as Partial<Problem> | undefined
  if (problem?.code) throw new ProblemError(problem as Problem)
  if (answer.response.status >= 502) throw new NoAnswerError()
  throw new ProblemError({ status: answer.response.status, code: 'unexpected', title: 'The server made a mistake. Nothing was written; try again.', params: {} })
}

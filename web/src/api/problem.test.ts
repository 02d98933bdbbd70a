import { expect, test } from 'vitest'
import { dataOf, NoAnswerError, ProblemError } from './problem'

const response = (status: number) => new Response('', { status })
const problem = { status: 409, code: 'not_now', title: 'Mains is live.', params: {} }

test('an answer is its data', async () => {
  await expect(dataOf(Promise.resolve({ data: 7, response: response(200) }))).resolves.toBe(7)
})

test('a refusal keeps the server’s words and code', async () => {
  const refused = dataOf(Promise.resolve({ error: problem, response: response(409) }))
  await expect(refused).rejects.toThrow('Mains is live.')
  await expect(refused).rejects.toBeInstanceOf(ProblemError)
})

test.each([
  ['no network', () => Promise.reject(new TypeError('down'))],
  ['a gateway without a server', () => Promise.resolve({ error: '', response: response(502) })],
])('%s is no answer: the write may be sent again', async (_, asked) => {
  await expect(dataOf(asked())).rejects.toBeInstanceOf(NoAnswerError)
})

test('a broken server is no refusal: it may have been written, in its own words', async () => {
  const broken = dataOf(Promise.resolve({ error: { ...problem, code: 'unexpected', title: 'It may have been written.' }, response: response(500) }))
  await expect(broken).rejects.toThrow('It may have been written.')
  await expect(broken).rejects.toBeInstanceOf(NoAnswerError)
})

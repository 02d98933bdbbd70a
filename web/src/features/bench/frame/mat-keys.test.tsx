import { render } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test, vi } from 'vitest'
import { MatKeys, useMatKeys, type Owner } from './mat-keys'

function Hand({ owner, press }: { owner: Owner; press: (what: string) => void }) {
  const { hasEnter } = useMatKeys(owner, { Enter: () => press(`${owner} Enter`), '1': () => press(`${owner} 1`), w: () => press(`${owner} w`) })
  return <p>{hasEnter && `${owner} has Enter`}</p>
}

test.each([
  ['{Enter}', ['gate Enter']],
  ['1', ['answers 1']],
  ['w', ['answers w']],
])('of two that want %s, the one that the mat names has it', async (keys, presses) => {
  const press = vi.fn()
  const { container } = render(
    <MatKeys enter="gate">
      <Hand owner="answers" press={press} />
      <Hand owner="gate" press={press} />
    </MatKeys>,
  )
  await userEvent.keyboard(keys)
  expect(press.mock.calls.flat()).toEqual(presses)
  expect(container).toHaveTextContent('gate has Enter')
  expect(container).not.toHaveTextContent('answers has Enter')
})

import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test } from 'vitest'
import type { DayRow } from '@/api/types'
import { showAt } from '@/lib/tests/server'
import { Tour } from './tour'

const row = (tag: string, stage: DayRow['stage']) => ({ tag, stage, stage_name: stage }) as DayRow // the tour reads no more of it
const rows = [row('K-1', 'isolate'), row('K-2', 'isolate'), row('K-3', 'prove')]
const tour = (of = rows) => showAt('/day', '/day', <Tour rows={of} />)

test('a stop is a unit that is there, ticked once it was seen', async () => {
  tour()
  await userEvent.click(screen.getByRole('button', { name: 'New here? A look round in 2 stops' }))
  await userEvent.click(screen.getByRole('link', { name: /K-1/ }))
  tour()
  expect(screen.getByText('✓ seen').closest('li')).toHaveTextContent('K-1')
})

test('it is put away, and taken up again', async () => {
  tour()
  await userEvent.click(screen.getByRole('button', { name: /New here/ }))
  await userEvent.click(screen.getByRole('button', { name: 'Not now' }))
  expect(screen.queryByRole('link', { name: /K-3/ })).toBeNull()
  await userEvent.click(screen.getByRole('button', { name: /New here/ }))
  expect(screen.getByRole('link', { name: /K-3/ })).toHaveAttribute('href', '/bench/K-3')
})

test('a house with nothing to show has no tour', () => {
  tour([row('K-1', 'taken_in')])
  expect(screen.queryByText(/look round/)).toBeNull()
})

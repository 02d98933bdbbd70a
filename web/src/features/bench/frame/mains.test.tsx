import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, beforeEach, expect, test } from 'vitest'
import type { Job } from '@/api/types'
import { TOP_BAR_END } from '@/ui/top-bar-end'
import { jobOf, onBench } from '../tests/kit'
import { isOff } from './mains'
import { MainsSwitch } from './mains-switch'

const rattle = { code: 'rattle', text: 'Something rattles.', clears: '', until: null, bars: 'power' as const }

beforeEach(() => document.body.append(Object.assign(document.createElement('div'), { id: TOP_BAR_END })))
afterEach(() => document.getElementById(TOP_BAR_END)?.remove())

test.each<[Job['power'], Job['hazards'], string, string | null]>([
  ['out', [], 'Mains out: set to live', 'live'],
  ['standby', [], 'Standby: plug in: set to out', 'out'],
  ['live', [], 'Mains live: set to out', 'out'],
  ['out', [rattle], 'Mains held out', null],
  ['standby', [rattle], 'Standby: plug in: set to out', 'out'],
  ['live', [rattle], 'Mains live: set to out', 'out'],
])('%s with %o: the switch says what is, and L sets the other', async (power, hazards, name, state) => {
  const send = onBench(<MainsSwitch />, jobOf({ power, hazards }))
  expect(screen.getByRole('button')).toHaveAccessibleName(name)
  await userEvent.keyboard('l')
  expect(send.mock.calls.map(([ask]) => ask)).toEqual(state ? [{ do: 'mains', state }] : [])
})

test.each([
  ['out', 'out', false],
  ['out', 'standby', true],
  ['live', 'standby', true],
  ['live', 'live', false],
  ['any', 'standby', false],
] as const)('what needs the mains %s, when it is %s, has it wrong: %s', (mains, power, isWrong) => {
  expect(isOff({ mains }, jobOf({ power }))).toBe(isWrong)
})

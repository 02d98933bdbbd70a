import { expect, test } from 'vitest'
import type { Together } from '@/api/types'
import { second } from './before-ordering'

const together = (one: number, two: number): Together => ({ p_cures: 0.4, wait_days: 7, looks: [], second: 'replace_belt', second_name: 'Replace the belt', second_cents: 200, p_used: 0.55, one_parcel_cents: one, two_parcels_cents: two })

test('a part that is hardly ever needed is not named', () => {
  expect(second({ ...together(-490, -900), p_used: 0.005 })).toBe('Order it alone: no second part is likely enough to go with it.')
})

test.each([
  [834, 310, /Order “Replace the belt” \(€2, needed in 55%\) at once as well.*saves about €3.10/],
  [834, -120, /if it comes in the same parcel: that saves about €8.30/],
  [-250, -900, /Order it alone.*would cost about €2.50 more/],
])('the second part is said in a sentence: %i in one parcel, %i in two', (one, two, says) => {
  expect(second(together(one, two))).toMatch(says)
})

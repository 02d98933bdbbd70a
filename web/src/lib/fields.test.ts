import { expect, test } from 'vitest'
import { amount, seen, text, whole, words } from './fields'
import { kept } from './kept'

test.each([
  [amount(), '24', 2400],
  [amount(), '24,5', 2450],
  [amount(), '', undefined],
  [amount(), 'much', undefined],
  [amount({ mayBeEmpty: true }), ' ', 0],
  [whole(), '12', 12],
  [whole(), '0', undefined],
  [whole(1, 3), '4', undefined],
  [text({ maxLength: 3 }), ' abc ', 'abc'],
  [text({ maxLength: 3 }), 'abcd', undefined],
  [words(), '  ', undefined],
  [seen(), { reads: 'works', spins: 'fails', loads: undefined, starts: '' }, { reads: true, spins: false }],
])('%# what is typed comes to what is sent, or to nothing', (schema, typed, sent) => {
  expect(schema.safeParse(typed).data).toEqual(sent)
})

test('somebody else signs in: drafts go, work on its way waits for its own person', () => {
  kept.forgetOthers('bram')
  kept.write('take-in', { owner: 'Wenna' })
  kept.write('lamp', 'off')
  kept.write('outbox:bram:K-1', { says: 'Spins' })
  kept.write('conflict:bram:K-2', { pending: { says: 'Lens clear' } })
  expect(kept.unsent('bram').sort()).toEqual(['Lens clear', 'Spins'])
  kept.forgetOthers('bram')
  expect(kept.read('take-in')).not.toBeNull()
  kept.forgetOthers('nia')
  expect([kept.read('take-in'), kept.read('outbox:bram:K-1'), kept.read('lamp'), kept.unsent('nia')]).toEqual([null, { says: 'Spins' }, 'off', []])
  kept.forgetAll()
  expect(Object.keys(localStorage)).toEqual(['spindle:lamp'])
})

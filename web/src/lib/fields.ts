/** What may be typed into a field, and what is sent of it. */
import * as z from 'zod/mini'
import { centsOf } from './money'
import { wholeOf } from './whole'

/** Lengths come from the API's own bounds. */
interface Bound {
  readonly maxLength?: number
}

const parsed = <Out>(read: (typed: string) => Out | null, message: string) =>
  z.pipe(
    z.string(),
    z.transform((typed: string, ctx): Out => {
      const found = read(typed)
      if (found !== null) return found
      ctx.issues.push({ code: 'custom', message, input: typed })
      return z.NEVER
    })
  )

export const text = ({ maxLength = 120 }: Bound = {}) => z.string().check(z.trim(), z.maxLength(maxLength, `At most ${maxLength} characters.`))
/** A text that has to be there. */
export const words = (bound: Bound = {}) => text(bound).check(z.minLength(1))
export const day = () => z.string().check(z.minLength(1))
export const one = <T extends string>() => z.string().check(z.minLength(1)) as unknown as z.ZodMiniType<T, string>
export const whole = (low = 1, high = 9_999) => parsed((typed) => wholeOf(typed, low, high), high === 9_999 ? `A whole number from ${low}.` : `A whole number from ${low} to ${high}.`)
/** Cents; an empty field is no money where it `mayBeEmpty`. */
export const amount = ({ mayBeEmpty = false } = {}) => parsed((typed) => (mayBeEmpty && typed.trim() === '' ? 0 : centsOf(typed)), 'An amount like 24 or 24.50.')
/** Which of some functions work or fail; what nobody tried is left out. */
export const seen = () => z.pipe(
    z.record(z.string(), z.optional(z.string())),
    z.transform((told) => Object.fromEntries(Object.entries(told).filter(([, s]) => s).map(([f, s]) => [f, s === 'works'])))
  )

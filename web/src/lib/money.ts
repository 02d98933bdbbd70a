/** Euro of an amount in cents, with a comma-free decimal point as on our bills. */
export const euro = (cents: number): string => `€${(cents / 100).toFixed(cents % 100 === 0 ? 0 : 2)}`

/** Cents of what somebody typed ("45", "45.50", "45,5"), or null if it is no amount of euro. */
export const centsOf = (typed: string): number | null => {
  const found = /^\s*€?\s*(\d{1,6})(?:[.,](\d{1,2}))?\s*€?\s*$/.exec(typed)
  return found ? Number(found[1]) * 100 + Number((found[2] ?? '').padEnd(2, '0')) : null
}

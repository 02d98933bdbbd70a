let sign = '€'

/** The sign of the shop's money; it comes with the session. */
export const setSign = (next: string): void => {
  sign = next
}

export const moneySign = (): string => sign

const before = (amount: string): string => (/^\p{L}{2,}$/u.test(sign) ? `${sign} ${amount}` : sign + amount)

/** An amount in cents as on our bills, with a comma-free decimal point. */
export const money = (cents: number): string => before((cents / 100).toFixed(cents % 100 === 0 ? 0 : 2))

/** Cents of what somebody typed ("45", "45.50", "45,5"), or null if it is no amount of money. */
export const centsOf = (typed: string): number | null => {
  const found = /^\s*(\d{1,6})(?:[.,](\d{1,2}))?\s*$/.exec(typed.replace(sign, ''))
  return found ? Number(found[1]) * 100 + Number((found[2] ?? '').padEnd(2, '0')) : null
}

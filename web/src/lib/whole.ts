/** The number that somebody typed, with a point or a comma, or null. */
export const decimalOf = (typed: string): number | null => (/^\d+([.,]\d+)?$/.test(typed.trim()) ? Number(typed.trim().replace(',', '.')) : null)

/** The whole number that somebody typed, within its bounds, or null. */
export const wholeOf = (typed: string, low = 1, high = 9_999): number | null => {
  const text = typed.trim()
  return /^\d{1,4}$/.test(text) && Number(text) >= low && Number(text) <= high ? Number(text) : null
}

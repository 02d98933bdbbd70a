/** A probability as it is said: never "0 %" and never "100 %". */
export const percent = (p: number): string => (p < 0.01 ? '<1%' : p > 0.99 ? '>99%' : `${Math.round(p * 100)}%`)

/** The two chances of a repair: that it cures now, and that the unit is still well after a year. */
export const cures = (now: number, year: number): string => `cures in ${percent(now)}, after a year still in ${percent(year)}`

/** The same where there is little room: the second is said where it is another. */
export const curesBriefly = (now: number, year: number): string => (year < 0.8 * now ? cures(now, year) : `cures in ${percent(now)}`)

export const minutes = (min: number): string => (min < 1 ? 'under 1 min' : `${Math.round(min)} min`)

export const decibans = (db: number): string => `${db > 0 ? '+' : '−'}${Math.abs(db) < 10 ? Math.abs(db).toFixed(db % 1 === 0 ? 0 : 1) : Math.round(Math.abs(db))}`

/** How strongly a finding speaks for or against a part: twice, or ten times, as likely as before. */
export const moved = (db: number): string => {
  const size = Math.abs(db)
  return `${size >= 10 ? 'strongly' : size >= 3 ? 'clearly' : 'a little'} ${db > 0 ? 'for' : 'against'}`
}

export const lowerFirst = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1)

/** A disc class as it is written: "game_bd" is a game BD. */
export const discClass = (id: string): string => {
  const [what, format] = id.split('_')
  return `${what} ${(format ?? '').toUpperCase()}`
}

/** What is known of a part as a whole, in a word. */
export const HEALTH_WORDS: Record<string, string> = { proven: 'proven', new: 'new', unknown: 'not known' }

/** What a part or donor can be known to do. */
export const FUNCTION_WORDS = {
  starts: 'starts when told',
  loads: 'takes and gives the disc',
  spins: 'spins',
  reads: 'reads',
  seeks: 'moves its sled',
  powers: 'feeds its board',
} as const

/** A function in words; one that this page does not know yet by its own name. */
export const functionWord = (id: string): string => (FUNCTION_WORDS as Record<string, string>)[id] ?? id

/** The two ends of a check. */
export const WORKS_OR_FAILS = [
  { id: 'works', label: 'Works' },
  { id: 'fails', label: 'Fails' },
] as const

/** A chance as a counter says it: "7 in 10", with its two ends in words. */
export const inTen = (p: number): string => (p < 0.05 ? 'hardly' : p > 0.95 ? 'nearly sure' : `${Math.min(Math.max(Math.round(p * 10), 1), 9)} in 10`)

const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' })
const day = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short' })

export const timeOf = (iso: string): string => clock.format(new Date(iso))
export const dayOf = (iso: string): string => day.format(new Date(iso)).replace(',', '')

/** Whole days from today to a date ("2026-11-27"), negative if it has passed. */
export const daysUntil = (date: string, today: Date): number => {
  const [y, m, d] = date.split('-').map(Number)
  return Math.round((Date.UTC(y!, m! - 1, d!) - Date.UTC(today.getFullYear(), today.getMonth(), today.getDate())) / 86_400_000)
}

export const promise = (date: string | null, today: Date): string => {
  if (!date) return 'no promise yet'
  const n = daysUntil(date, today)
  if (n < 0) return `${-n} ${n === -1 ? 'day' : 'days'} late`
  return n === 0 ? 'today' : n === 1 ? 'tomorrow' : dayOf(date)
}

/** Today as a date field writes it ("2026-11-27"), by this browser's clock. */
export const today = (now = new Date()): string => `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}`

/** Whole days since a moment, in words: "since today", "for 3 days". */
export const sinceWhen = (iso: string, now = new Date()): string => {
  const days = Math.floor((now.getTime() - new Date(iso).getTime()) / 86_400_000)
  return days < 1 ? 'since today' : `for ${days} ${days === 1 ? 'day' : 'days'}`
}

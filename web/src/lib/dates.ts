let zone: string | undefined
let clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' })
let day = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short' })

/** The shop's own clock: every time and every day on the screens is by it, wherever this browser stands. */
export const setZone = (next: string): void => {
  if (next === zone) return
  zone = next
  clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', timeZone: zone })
  day = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone: zone })
}

const plainDay = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' })

export const timeOf = (iso: string): string => clock.format(new Date(iso))
/** The day of a moment by the shop's clock, or of a plain date ("2026-11-27"), which is the same day everywhere. */
export const dayOf = (iso: string): string => (/^\d{4}-\d\d-\d\d$/.test(iso) ? plainDay : day).format(new Date(iso)).replace(',', '')

/** Whole days from today to a date ("2026-11-27"), negative if it has passed. */
export const daysUntil = (date: string, today: Date): number => {
  return Math.round((Date.parse(date) - Date.parse(todayOf(today))) / 86_400_000)
}

export const promise = (date: string | null, today: Date): string => {
  if (!date) return 'no promise yet'
  const n = daysUntil(date, today)
  if (n < 0) return `${-n} ${n === -1 ? 'day' : 'days'} late`
  return n === 0 ? 'today' : n === 1 ? 'tomorrow' : dayOf(date)
}

/** The day of a moment at the shop as a date field writes it ("2026-11-27"). */
const todayOf = (now: Date): string => new Intl.DateTimeFormat('en-CA', { year: 'numeric', month: '2-digit', day: '2-digit', timeZone: zone }).format(now)

/** The day so many days from now, as a date field writes it. */
export const inDays = (n: number, now: Date): string => todayOf(new Date(now.getTime() + n * 86_400_000))

/** The next Friday, a week off if it is Friday today. */
export const nextFriday = (now: Date): string => {
  const weekday = new Date(todayOf(now)).getUTCDay()
  return inDays(((5 - weekday + 6) % 7) + 1, now)
}

export const today = (now = new Date()): string => todayOf(now)

/** Whole days since a moment, in words: "since today", "for 3 days". */
export const sinceWhen = (iso: string, now = new Date()): string => {
  const days = Math.floor((now.getTime() - new Date(iso).getTime()) / 86_400_000)
  return days < 1 ? 'since today' : `for ${days} ${days === 1 ? 'day' : 'days'}`
}

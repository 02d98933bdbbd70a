/** Files that did not arrive: kept in this browser for the person who took them until they did, also over a sign-in, a reload or a crash. */
import { createStore, del, entries, set } from 'idb-keyval'

export type Way = '/api/photos' | '/api/sounds'

/** What follows a file once it has arrived: the ask that keeps it with the job, without its hash. */
export interface Follows {
  tag: string
  ask: Record<string, unknown>
  says: string
}

export interface WaitingFile extends Follows {
  id: string
  who: string
  to: Way
  file: Blob
  name: string
  at: number
}

const MOST_DAYS = 14
/** A page on a bench, left for two weeks, is nobody's any more. */
const OLDEST_MS = MOST_DAYS * 86_400_000

let opened: ReturnType<typeof createStore> | undefined
const store = () => (opened ??= createStore('tidy-spindle', 'waiting-files'))

/** What comes of the browser's store, or something else where it keeps nothing: a file is sent all the same then. */
async function orElse<T>(asked: () => Promise<T>, other: T): Promise<T> {
  try {
    return await asked()
  } catch {
    return other
  }
}

/** Keeps a file until it is let go. */
export const hold = (file: WaitingFile): Promise<void> => orElse(() => set(file.id, file, store()), undefined)

export const letGo = (id: string): Promise<void> => orElse(() => del(id, store()), undefined)

/** What waits of one person's job, oldest first. */
export async function waitingOf(who: string, tag: string, now = Date.now()): Promise<WaitingFile[]> {
  const all = await orElse(() => entries<string, WaitingFile>(store()), [])
  const kept = all.map(([, file]) => file)
  await Promise.all(kept.filter((f) => now - f.at > OLDEST_MS).map((f) => letGo(f.id)))
  return kept.filter((f) => f.who === who && f.tag === tag && now - f.at <= OLDEST_MS).sort((a, b) => a.at - b.at)
}

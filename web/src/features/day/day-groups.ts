import type { Acts, DayRow, House } from '@/api/types'

/** Who must act, in the order in which a morning goes: what can go out first, then the bench, then who is waited for. */
export const GROUPS: readonly { id: Acts; title: string; note: string }[] = [
  { id: 'collect', title: 'Ready to collect', note: 'done and unplugged: the owner fetches it' },
  { id: 'bench', title: 'The bench', note: 'can go on now' },
  { id: 'counter', title: 'The counter', note: 'notes or the owner’s word missing before the bench may begin' },
  { id: 'owner', title: 'The owner', note: 'has to agree' },
  { id: 'part', title: 'A part', note: 'none of its kind on the shelf' },
  { id: 'wait', title: 'A wait that runs', note: 'dries or cools by itself' },
]

/** What a person may act on comes first for them: the counter sees the counter's first. */
export const groupsFor = (role: string | undefined): typeof GROUPS =>
  role === 'counter' ? [...GROUPS].sort((a, b) => rank(a.id) - rank(b.id)) : GROUPS

const COUNTER: readonly Acts[] = ['collect', 'counter', 'owner', 'bench', 'part', 'wait']
const rank = (id: Acts): number => COUNTER.indexOf(id)

/** The rows that are at hand, group by group. */
export const rowsOf = (house: House | undefined): DayRow[] => house?.groups.flatMap((g) => g.rows) ?? []

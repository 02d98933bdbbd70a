import { functionWord, HEALTH_WORDS } from '@/lib/words'
import { Chip, type Tone } from '@/ui/panel'

const STATES: Record<string, string> = { fails: 'fails', suspect: 'suspect: the donor fails at it', untested: 'untested' }
const TONES: Record<string, Tone> = { proven: 'clear', new: 'plain', unknown: 'brass' }

/** What is known of a part as a whole. */
export function Health({ health }: { health: string }) {
  return <Chip tone={TONES[health] ?? 'plain'}>{HEALTH_WORDS[health] ?? health}</Chip>
}

/** Function by function: a tick works, a bar fails, a ring nobody has tried. */
export function FunctionMarks({ functions }: { functions: Record<string, string> }) {
  return (
    <ul className="flex flex-wrap gap-x-3 gap-y-0.5">
      {Object.entries(functions).map(([id, state]) => (
        <li key={id} className={`inline-flex items-center gap-1.5 ${state === 'works' ? 'text-verdigris' : state === 'fails' || state === 'suspect' ? 'text-ember-deep' : 'text-quiet'}`}>
          <svg viewBox="0 0 16 16" className="size-4" aria-hidden="true" fill="none" stroke="currentColor" strokeWidth="2">
            {state === 'works' && <path d="M2.5 8.5l3.5 3.5 7.5-8" />}
            {state === 'fails' && <path d="M2 8h12" strokeWidth="3" />}
            {state === 'suspect' && <path d="M2 8h12" strokeWidth="3" strokeDasharray="3 3" />}
            {state === 'untested' && <circle cx="8" cy="8" r="5" strokeDasharray="2.6 2.2" />}
          </svg>
          {functionWord(id)}
          {state !== 'works' && <span className="text-tiny">{STATES[state] ?? state}</span>}
        </li>
      ))}
    </ul>
  )
}

/** What a part says of its own functions, from the two lists that the server keeps. */
export const statesOf = (functions: readonly string[], works: readonly string[], fails: readonly string[]): Record<string, string> =>
  Object.fromEntries(functions.map((f) => [f, works.includes(f) ? 'works' : fails.includes(f) ? 'fails' : 'untested']))

import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render } from '@testing-library/react'
import type { ReactNode } from 'react'
import { MemoryRouter } from 'react-router'
import { vi } from 'vitest'
import type { Baseline, Job, Move } from '@/api/types'
import { BenchContext, type Bench } from '../frame/bench-context'

export const caution = { id: 'laser', short: 'Never look into a running drive', text: 'Invisible laser light.' }

export const entry = (id: string, more: Partial<Baseline> = {}): Baseline => ({
  question: {
    id,
    kind: 'baseline',
    ask: `Does ${id} work?`,
    how: 'Look.',
    outcomes: [
      { id: 'yes', label: 'Yes', is_failure: false },
      { id: 'no', label: 'No', is_failure: true },
    ],
    bench_min: 1,
    depth: 0,
    mains: 'live',
    cautions: [],
  },
  name: id,
  nm: null,
  is_supported: true,
  reference_s: null,
  answer: null,
  ...more,
})

export const move = (more: Partial<Move> = {}): Move => ({
  kind: 'repair',
  id: 'clean_lens',
  title: 'Clean the lens',
  how: '',
  why: 'Cures “Lens dirty” (54 % likely).',
  expected_cents: 7100,
  saves_cents: 0,
  bench_min: 3,
  opening_min: 16,
  part_cents: 0,
  wait_days: 0,
  depth: 2,
  mains: 'out',
  p_cures: 0.34,
  p_lasts_year: 0.3,
  cautions: [],
  answers: [],
  repair: 'clean_lens',
  item: '',
  source: '',
  sheet: { said: [], lacks: false },
  ...more,
})

const suspect = (id: string, name: string, p: number) => ({ id, part: id, name, p })

const drive: Job['drive'] = { maker: 'M', console: 'C', revision: '1', variant: 'V', family: 'slot', pairing: 'board', has_trimmer: true, has_belt: false, lid_switches: 0, has_electrolytics: false, has_alignment: false, motor_soldered: false, fuse_rating: '1.5 A fast', wavelengths: [405], label_faces: {} }

export const jobOf = (more: Partial<Job> = {}): Job => ({
  tag: 'K-0107',
  version: 7,
  stage: 'isolate',
  stages: [{ id: 'isolate', name: 'Isolate', state: 'now' }],
  missing: [],
  next_stage: 'Agree',
  depth: 0,
  power: 'live',
  ...{ hazards: [], waits: [] },
  drive,
  owner_name: 'Wenna',
  owner_contact: '0491',
  complaint: 'Clicks.',
  condition: [],
  limit_cents: 2500,
  supply: 'own',
  promised_on: null,
  bench_min: 15,
  tape: [],
  diagnosis: {
    suspects: [suspect('lens_dirty', 'Lens dirty', 0.54), suspect('pickup_405', 'Short-wave diode', 0.31)],
    parts: [suspect('lens', 'Lens', 0.54), suspect('unlisted', 'Not on the list', 0.004)],
    moves: [move()],
    mind_changes: [],
    barred: [],
    is_tie: false, same_go: [],
    notices: [],
    paths: [],
    swaps: { rows: [], parts: [], items: [], next_item: '', next_repair: '', p_cures: 0, bits: 0, minutes: 0 },
  },
  baseline: [entry('power'), entry('spins')],
  classes: [],
  classes_say: 'No class tried yet.',
  agree: { ends: [], offers: [], proposal: null, consents: [], agreed_cents: 2500, needs_consent: '' },
  procedure: null,
  repairs: [
    { id: 'clean_lens', name: 'Clean the lens', uses_item: false, takes: '', alters: '' },
    { id: 'replace_pickup', name: 'Replace the bare pickup', uses_item: true, takes: 'Bare pickup', alters: '' },
  ],
  configuration: { places: [{ name: 'Supply', item: '' }, { name: 'Pickup', item: '' }], on_trial: [], asks: [] },
  measurable: [],
  custody: [],
  identity: [],
  looks: {},
  sheet_version: 1,
  newer_sheet_id: null,
  ticks: [],
  ...{ mat: { has_order: false, left: 0, next_back: null }, photos: [], sounds: 0, owner_asks: '' },
  wet: [],
  is_new: false,
  told: [],
  paid: null,
  collected_by: '',
  voided: '',
  returns: null,
  guarantee_until: null,
  proof: { outcome: 'Not repaired yet', checks: [], account: [], passes: 0, passes_needed: 3, p_fixed: 0, p_fail_per_try: 0.5, cause: 'Cause not found for certain.', p_cause: 0, confirmed: null, verdict: '', says: '' },
  ...more,
})

/** A part of the bench screen with a job on it; returns what it sends. */
export function onBench(ui: ReactNode, job: Job = jobOf(), { mayWork = true, isBusy = false, onTheWay = [] as Bench['onTheWay'], openMat = vi.fn() } = {}) {
  const [send, measure] = [vi.fn(), vi.fn()]
  const cache = new QueryClient()
  cache.setQueryData(['session'], { user: { name: 'Bram', username: 'bram', role: 'technician', may: mayWork ? ['bench', 'agree', 'sheets', 'note'] : [] }, csrf_token: '', shop: '' })
  render(
    <MemoryRouter>
      <QueryClientProvider client={cache}>
        <BenchContext value={{ job, send, isBusy, mayWork, onTheWay, measure, openMat }}>{ui}</BenchContext>
      </QueryClientProvider>
    </MemoryRouter>,
  )
  return send
}

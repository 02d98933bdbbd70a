/** A drive sheet in the open format, as far as the screens read and change it. */
export type Cell = string | number | boolean | null
export type Row = Record<string, Cell>

export interface SheetSource {
  origin: string
  confidence: string
  said?: string
}

export interface SheetDocument {
  format: string
  version: number
  maker: string
  console: string
  revision: string
  drive: {
    variant: string
    family: string
    pairing?: string
    classes: string[]
    fuse_rating?: string
    lid_switches?: number
    reference_times?: Record<string, { mean_s: number; sd_s: number; n: number }>
    label_faces?: Record<string, string>
    prior_factors?: Record<string, number>
    prices?: Record<string, { price_eur: number; wait_days: number }>
  } & Partial<Record<(typeof FLAGS)[number]['id'], boolean>>
  looks: Record<string, string>
  tables: Record<string, Row[]>
  sources: Record<string, SheetSource>
}

/** What a drive has or has not; some of it in one loader family alone. */
export const FLAGS = [
  { id: 'has_trimmer', name: 'A trimmer on the pickup', byDefault: true, family: '' },
  { id: 'has_belt', name: 'A belt between load motor and gears', byDefault: true, family: 'tray' },
  { id: 'has_electrolytics', name: 'Electrolytic capacitors on the drive board', byDefault: false, family: '' },
  { id: 'has_alignment', name: 'Bias and gain are set at test points', byDefault: false, family: 'lid' },
  { id: 'motor_soldered', name: 'Motors are soldered', byDefault: false, family: '' },
  { id: 'spins_first', name: 'Spins before it looks for focus', byDefault: false, family: '' },
] as const

export const CLASSES = ['game_bd', 'film_bd', 'game_dvd', 'film_dvd', 'game_cd', 'music_cd', 'data_cd'] as const

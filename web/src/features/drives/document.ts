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
    level_point?: string
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
  { id: 'two_lenses', name: 'Two lenses: one for the short light', byDefault: false, family: '' },
  { id: 'fuse_feeds_console', name: 'The drive’s fuse feeds the console too', byDefault: false, family: '' },
  { id: 'foreign_reads_films', name: 'A foreign board still reads films and music', byDefault: false, family: '' },
  { id: 'switches_without_contacts', name: 'Switches are light gates or Hall sensors', byDefault: false, family: '' },
  { id: 'board_under_deck', name: 'The drive board hangs under the deck', byDefault: false, family: '' },
] as const

/** What the sheet's test point for light measures. */
export const LEVEL_POINTS = [
  { id: 'unknown', label: 'Not known' },
  { id: 'amplitude', label: 'What comes back' },
  { id: 'monitor', label: 'The light given' },
  { id: 'current', label: 'The diode’s current' },
]

export const CLASSES = ['game_bd', 'film_bd', 'game_dvd', 'film_dvd', 'layered_dvd', 'burnt_dvd', 'game_cd', 'music_cd', 'data_cd', 'burnt_cd'] as const

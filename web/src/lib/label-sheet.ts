/** How a sheet of labels is divided, as the shop's own printer has it. */
export interface LabelSheet {
  columns: number
  rows: number
}
/** With more of them a code is too small to be scanned. */
export const MOST_LABELS: LabelSheet = { columns: 4, rows: 12 }
let sheet: LabelSheet = { columns: 3, rows: 8 }

export const setLabelSheet = (told: LabelSheet): void => {
  sheet = told
}
export const labelSheet = (): LabelSheet => sheet

/** How a sheet of labels is divided, as the shop's own printer has it. */
export interface LabelSheet {
  columns: number
  rows: number
}
let sheet: LabelSheet = { columns: 3, rows: 8 }

export const setLabelSheet = (told: LabelSheet): void => {
  sheet = told
}
export const labelSheet = (): LabelSheet => sheet

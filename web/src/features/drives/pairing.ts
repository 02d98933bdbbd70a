export const PAIRING: Record<string, string> = {
  none: 'Unpaired: whole drives swap freely',
  board: 'Board paired: it stays with its console',
  chip: 'Chip paired: its board stays with its console',
  unknown: 'Pairing unknown: treat it as paired',
}
export const PAIRING_SHORT: Record<string, string> = { none: 'unpaired', board: 'board paired', chip: 'chip paired', unknown: 'pairing unknown' }

import type { Fault, FaultKind, FaultPlace } from '#core/finish'

/** What may be wrong with a piece. */
export const FAULT_WORDS: Record<FaultKind, string> = {
  air_holes: 'Pinholes',
  voids: 'Voids',
  bumps: 'Bumps',
  soft: 'Soft or chalky',
  lumps: 'Lumps',
  crack: 'Cracks',
  streaks: 'Streaks',
  flow_lines: 'Flow lines',
  short_fill: 'Short, not full',
  warped: 'Warped',
  off_size: 'Wrong size or shape',
  detail_lost: 'Detail soft or lost',
  stuck: 'Stuck in the mould',
  stains: 'Stains',
  crystals: 'White crystals',
  crumbled_edge: 'Crumbled edge',
  broke: 'Broke',
}

export const FAULT_PLACE_WORDS: Record<FaultPlace, string> = {
  face: 'on the face',
  edge: 'at an edge',
  back: 'on the back',
  inside: 'inside',
  all_over: 'all over',
}

/** A fault in a few words: what, how large, where. */
export function faultText(fault: Fault, show: { size: (mm: number) => string }): string {
  const size = fault.sizeMm === undefined ? '' : `, ${show.size(fault.sizeMm)}`
  return `${FAULT_WORDS[fault.kind]}${size}${fault.place ? ` ${FAULT_PLACE_WORDS[fault.place]}` : ''}`
}

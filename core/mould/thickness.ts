import type { Issue } from '../errors'

/** What the piece is for, as far as its thickness and its plaster care. */
export const PURPOSES = [
  'figure',
  'tile',
  'print',
  'dental',
  'slab',
  'slip_mould',
  'shell',
  'mother_mould',
  'prop',
  'chalk',
] as const
export type Purpose = (typeof PURPOSES)[number]

export type ThicknessCode =
  | 'print_too_thin'
  | 'dental_base_too_thin'
  | 'dental_base_thinner_than_usual'
  | 'slab_too_thin'
  | 'slab_too_thick'
  | 'plate_will_break'
  | 'slip_wall_too_thin'

interface Bound {
  code: ThicknessCode
  below?: number
  above?: number
}

/** Thickness that each purpose asks for, mm, strictest first. All of it common practice, no source. */
const BOUNDS: Record<Purpose, readonly Bound[]> = {
  figure: [{ code: 'plate_will_break', below: 8 }],
  tile: [{ code: 'plate_will_break', below: 8 }],
  print: [{ code: 'print_too_thin', below: 12 }],
  dental: [
    { code: 'dental_base_too_thin', below: 10 },
    { code: 'dental_base_thinner_than_usual', below: 15 },
  ],
  slab: [
    { code: 'slab_too_thin', below: 40 },
    { code: 'slab_too_thick', above: 50 },
  ],
  slip_mould: [{ code: 'slip_wall_too_thin', below: 25 }],
  shell: [{ code: 'plate_will_break', below: 8 }],
  mother_mould: [{ code: 'plate_will_break', below: 8 }],
  // Meant to break: thin is right.
  prop: [],
  chalk: [],
}

/** What a piece for this purpose needs where it is thinnest, mm; undefined where thin is no fault. */
export function neededThicknessMm(purpose: Purpose): number | undefined {
  return BOUNDS[purpose].find((b) => b.below !== undefined)?.below
}

/** Whether a piece is thick enough where it is thinnest, and not thicker than is any use. */
export function checkThickness(purpose: Purpose, thinnestMm: number): Issue<ThicknessCode>[] {
  for (const { code, below, above } of BOUNDS[purpose]) {
    const limit = below !== undefined && thinnestMm < below - 1e-6 ? below : above
    const wrong = limit !== undefined && (limit === below || thinnestMm > limit + 1e-6)
    if (wrong)
      return [{ code, severity: 'warning', path: 'mould.thicknessMm', actual: thinnestMm, limit, unit: 'mm' }]
  }
  return []
}

import { MAX_WATER_OF_DRY_MASS } from '../drying'
import type { MouldMaterial, Purpose } from '../mould'

/** What a piece is for and what it came out of, as finishing hangs on them. */
export interface FinishPiece {
  purposes: readonly Purpose[]
  materials: readonly MouldMaterial[]
}

interface TaskDefinition {
  /** Free water over dry mass it may have at most: not before. */
  driestAtMost?: number
  /** And at least: after that it is too hard, or too dry to take it. */
  wetAtLeast?: number
  /** Hours it is left alone first. */
  afterH?: number
  for?: (piece: FinishPiece) => boolean
}

const isFor =
  (...purposes: Purpose[]) =>
  (piece: FinishPiece) =>
    piece.purposes.some((p) => purposes.includes(p))
const outOf =
  (...materials: MouldMaterial[]) =>
  (piece: FinishPiece) =>
    piece.materials.some((m) => materials.includes(m))
/** Film or paint on it, and it would draw no more water from the clay. */
const notWorking = (piece: FinishPiece) => !isFor('slip_mould', 'slab')(piece)
const notGround = (piece: FinishPiece) => !outOf('sand_soil')(piece)

/**
 * What is done to a piece once it is out, in the order of doing it, with how wet it may be. Common practice, no source; a
 * figure of water against dry mass stands for what the hand calls soft, firm and dry (estimates; docs/science.md#drying).
 */
export const TASK = {
  peel_clay: { wetAtLeast: 0.15, for: outOf('wet_clay') },
  pick_gel: { wetAtLeast: 0.2, for: outOf('alginate') },
  leave_soil: { for: outOf('sand_soil') },
  knock_bumps: { wetAtLeast: 0.15, for: notGround },
  fill_voids: { wetAtLeast: 0.1, for: notGround },
  round_edges: { wetAtLeast: 0.1 },
  trim_base: { wetAtLeast: 0.15, for: notGround },
  scrub: { wetAtLeast: 0.1, for: notGround },
  rinse_dab: { afterH: 12 },
  sand_wet: {},
  sand_dry: { driestAtMost: MAX_WATER_OF_DRY_MASS.sand, for: notGround },
  paint: { driestAtMost: MAX_WATER_OF_DRY_MASS.paint, for: notWorking },
  seal: { driestAtMost: MAX_WATER_OF_DRY_MASS.seal, for: notWorking },
} as const satisfies Record<string, TaskDefinition>

export type FinishTask = keyof typeof TASK
export const FINISH_TASKS = Object.keys(TASK) as [FinishTask, ...FinishTask[]]

/** What there is to do to such a piece. */
export function tasksFor(piece: FinishPiece): FinishTask[] {
  return FINISH_TASKS.filter((id) => {
    const task: TaskDefinition = TASK[id]
    return task.for?.(piece) ?? true
  })
}

/** When a task may be done, by how much water is left: shares of the free water, 0–1, and hours first. */
export function waterWindow(
  id: FinishTask,
  freeWaterOfDryMass: number,
): { fromLeft: number; untilLeft: number; afterH: number } {
  const { driestAtMost, wetAtLeast, afterH = 0 }: TaskDefinition = TASK[id]
  const share = (ofDryMass: number) => Math.min(1, ofDryMass / freeWaterOfDryMass)
  return {
    fromLeft: driestAtMost === undefined ? 1 : share(driestAtMost),
    untilLeft: wetAtLeast === undefined ? 0 : share(wetAtLeast),
    afterH,
  }
}

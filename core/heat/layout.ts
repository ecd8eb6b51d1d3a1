import { convectionWM2K } from '../drying'
import type { HeatPiece, HeatSurroundings } from './piece'
import { WALLS } from './materials'

/** A face's share of radiation at room temperature. */
export const RADIATION_W_M2K = 5
const WALL_CELLS = 8
const BENCH_CELLS = 6
const GROUND_CELLS = 16
const BENCH_MM = 18
const GROUND_MM = 150
/** Cells of the ground shrink towards the piece by this. */
const GROUND_GROWTH = 1.25
const POWER = { slab: 0, cylinder: 1, sphere: 2 } as const

/**
 * The cells of a piece and all that lies about it, one-dimensional: a slab from its upper face down, a round piece from
 * its centre out; the cast first, then walls and what they stand on.
 */
export interface Layout {
  cells: number
  castCells: number
  /** m³ of each cell, for 1 m² of a slab; of a cylinder 1 m long over 2π, of a sphere over 4π. */
  volume: Float64Array
  /** J/(m³ K) of what is not cast. */
  capacity: Float64Array
  /** Between cell i and i + 1, W/K; cast conductivities are set once, they do not change. */
  conductance: Float64Array
  /** W/K from the first cell's middle to an open face; 0 where the first face is a centre or a mirror. */
  topHalf: number
  /** Last face, m², and W/K from the last cell's middle to it. */
  farArea: number
  farHalf: number
  /** From the last cast cell's middle to its rim, and from there to the next cell's middle or the air, W/K. */
  rimInner: number
  rimOuter: number
  /** Starting temperature of each cell, °C. */
  startC: Float64Array
  far: 'air' | 'fixed'
}

function layersOf(piece: HeatPiece, castCells: number) {
  const layers: { mm: number; cells: number; k: number; c: number; of: 'cast' | 'mould' | 'under' }[] = [
    // Shut in alike on both sides, its middle is a mirror: half of it is the whole.
    {
      mm: piece.shape === 'slab' && piece.top === 'covered' ? piece.sizeMm / 2 : piece.sizeMm,
      cells: castCells,
      k: 0,
      c: 0,
      of: 'cast',
    },
  ]
  for (const { material, thicknessMm } of piece.walls) {
    const { conductivityWMK, capacityJM3K } = WALLS[material]
    layers.push({ mm: thicknessMm, cells: WALL_CELLS, k: conductivityWMK, c: capacityJM3K, of: 'mould' })
  }
  if (piece.standsOn === 'bench') {
    const { conductivityWMK, capacityJM3K } = WALLS.wood
    layers.push({ mm: BENCH_MM, cells: BENCH_CELLS, k: conductivityWMK, c: capacityJM3K, of: 'under' })
  }
  return layers
}

/** @param castK conductivity of the cast, W/(m K). */
export function layoutOf(
  piece: HeatPiece,
  around: HeatSurroundings,
  castCells: number,
  castK: number,
  mixTempC: number,
): Layout {
  const widths: number[] = []
  const k: number[] = []
  const c: number[] = []
  const start: number[] = []
  for (const layer of layersOf(piece, castCells)) {
    for (let i = 0; i < layer.cells; i++) {
      widths.push(layer.mm / 1000 / layer.cells)
      k.push(layer.of === 'cast' ? castK : layer.k)
      c.push(layer.c)
      start.push(layer.of === 'cast' ? mixTempC : layer.of === 'mould' ? around.mouldTempC : around.airTempC)
    }
  }
  if (piece.standsOn !== 'bench' && piece.standsOn !== 'air') {
    const ground = WALLS[piece.standsOn]
    const first = (GROUND_MM / 1000) * ((GROUND_GROWTH - 1) / (GROUND_GROWTH ** GROUND_CELLS - 1))
    for (let i = 0; i < GROUND_CELLS; i++) {
      widths.push(first * GROUND_GROWTH ** i)
      k.push(ground.conductivityWMK)
      c.push(ground.capacityJM3K)
      start.push(around.groundTempC)
    }
  }
  const j = POWER[piece.shape]
  const n = widths.length
  const edges = new Float64Array(n + 1)
  for (let i = 0; i < n; i++) edges[i + 1] = edges[i]! + widths[i]!
  const area = (x: number) => x ** j
  const volume = new Float64Array(n)
  const conductance = new Float64Array(n - 1)
  for (let i = 0; i < n; i++) volume[i] = (edges[i + 1]! ** (j + 1) - edges[i]! ** (j + 1)) / (j + 1)
  for (let i = 0; i + 1 < n; i++)
    conductance[i] = area(edges[i + 1]!) / ((0.5 * widths[i]!) / k[i]! + (0.5 * widths[i + 1]!) / k[i + 1]!)
  return {
    cells: n,
    castCells,
    volume,
    capacity: Float64Array.from(c),
    conductance,
    topHalf: piece.shape === 'slab' && piece.top === 'open' ? (2 * k[0]!) / widths[0]! : 0,
    rimInner: (2 * k[castCells - 1]! * area(edges[castCells]!)) / widths[castCells - 1]!,
    rimOuter:
      castCells < n
        ? (2 * k[castCells]! * area(edges[castCells]!)) / widths[castCells]!
        : (convectionWM2K(around.speedMS) + RADIATION_W_M2K) * area(edges[n]!),
    farArea: area(edges[n]!),
    farHalf: (2 * k[n - 1]! * area(edges[n]!)) / widths[n - 1]!,
    startC: Float64Array.from(start),
    far: piece.standsOn === 'air' || piece.standsOn === 'bench' ? 'air' : 'fixed',
  }
}

import type { Provenance } from '../../provenance'
import {
  findUndercuts,
  flattenProfile,
  profileFault,
  revolvedSurfaceMm2,
  revolvedVolumeMl,
  wallThickness,
} from '../profile'
import { lengthMmOrNone } from './figures'
import { FORM_SHARE, TAPE_MM, extent, fault, found, warning } from './finding'
import { way } from './way'

const DRAWN: Provenance = { kind: 'model', source: 'from its drawn profile' }
/** Walls of a cast should be even to a fifth (common practice, no source). */
const WALL_EVENNESS = 0.2

/** Half of a round form, drawn, and turned about its axis. */
export const profile = way({
  by: 'profile',
  figures: { outer: { is: 'profile' }, inner: { is: 'profile' }, fillHeightMm: lengthMmOrNone },
  find: (m) => {
    const outer = flattenProfile(m.outer)
    const inner = flattenProfile(m.inner)
    const wrong = profileFault(outer, inner)
    if (wrong) {
      const path = wrong.code === 'inner_outside_outer' ? 'inner' : 'outer'
      return { ok: false, issues: [fault(wrong.code, path, wrong.at[1], wrong.at[0], 'mm')] }
    }
    const floorMm = Math.min(...outer.map((p) => p[1]))
    const rimMm = outer.at(-1)![1]
    const levelMm = m.fillHeightMm === null ? rimMm : floorMm + m.fillHeightMm
    if (levelMm <= floorMm || levelMm > rimMm + 1e-6)
      return {
        ok: false,
        issues: [fault('fill_outside_profile', 'fillHeightMm', levelMm - floorMm, rimMm - floorMm, 'mm')],
      }
    const volumeMl = revolvedVolumeMl(outer, levelMm) - revolvedVolumeMl(inner, levelMm)
    const grown = outer.map(([r, z]): [number, number] => [r + TAPE_MM / 2, z])
    const offMl = revolvedVolumeMl(grown, levelMm) - revolvedVolumeMl(outer, levelMm)
    const undercutMm = Math.max(0, ...findUndercuts(outer).map((u) => u.depthMm))
    const surfaceMm2 = revolvedSurfaceMm2(outer) + (inner.length > 0 ? revolvedSurfaceMm2(inner) : 0)
    const wall = inner.length > 0 ? wallThickness(outer, inner) : undefined
    const uneven =
      wall &&
      Math.max(wall.thickestMm - wall.meanMm, wall.meanMm - wall.thinnestMm) > WALL_EVENNESS * wall.meanMm
        ? [warning('wall_uneven', 'inner', wall.thinnestMm, wall.thickestMm, 'mm')]
        : []
    return found(
      volumeMl,
      Math.hypot(offMl, FORM_SHARE * volumeMl),
      DRAWN,
      wall ? ['form_taken_as_ideal', 'wall_between_profiles'] : ['form_taken_as_ideal'],
      { surfaceMm2, undercutMm, thinnestMm: wall?.thinnestMm },
      uneven,
    )
  },
  extent: (m) => {
    const points = flattenProfile(m.outer)
    const heights = points.map(([, heightMm]) => heightMm)
    const bottom = Math.min(...heights)
    const top = m.fillHeightMm === null ? Math.max(...heights) : bottom + m.fillHeightMm
    return extent(top - bottom, 2 * Math.max(...points.map(([radiusMm]) => radiusMm)))
  },
  slabMm: () => undefined,
})

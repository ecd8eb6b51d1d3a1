import { describe, expect, it } from 'vitest'
import { PLASTER_CLASS_IDS, plasterClass } from '../plaster'
import { SIFT_STAGES, consistencyBySifting } from './schools'
import { settingLook, siftingLook, soakingLook, stirringLook, takenUp } from './look'

const plain = PLASTER_CLASS_IDS.filter((id) => plasterClass(id).fillerRatio === 0)
/** Sifted to a look: a bowl of what that look gives. */
const sifted = (classId: (typeof plain)[number], stage: (typeof SIFT_STAGES)[number]) =>
  siftingLook({ classId, waterG: consistencyBySifting(classId, stage).mid, powderG: 100 }, 1)

// By the looks that casters sift to (common practice, no source).
describe('a bowl looks as what is in it makes it look', () => {
  it.each(plain)('%s: islands, a dry bed, a mountain', (classId) => {
    const [islands, bed, mountain] = SIFT_STAGES.map((stage) => sifted(classId, stage))
    expect(islands!.dryShare).toBeGreaterThan(0.2)
    expect(islands!.dryShare).toBeLessThan(0.6)
    expect(islands!.bed).toBeLessThan(islands!.level)
    expect(bed!.dryShare).toBe(1)
    expect(bed!.heap).toBeLessThan(0.1)
    expect(mountain!.heap).toBeGreaterThan(3 * bed!.heap)
    // A bed that drinks all the water reaches up to it.
    expect(mountain!.bed).toBeCloseTo(mountain!.level, 6)
    expect(mountain!.level).toBeLessThan(1)
  })

  it('powder sinks under clear water at first, and nothing of it is drawn twice', () => {
    // 70 to 100: half of the pottery plaster takes up half of what all of it would.
    const bowl = { classId: 'pottery', waterG: 700, powderG: 1000 } as const
    const whole = takenUp(bowl)
    expect(whole).toBeCloseTo(consistencyBySifting('pottery', 'lake_bed').mid / 70, 9)
    expect(takenUp({ ...bowl, powderG: 500 })).toBeCloseTo(whole / 2, 9)
    const looks = [0, 0.25, 0.5, 0.75, 1].map((share) => siftingLook(bowl, share))
    expect(looks[0]).toMatchObject({ bed: 0, dryShare: 0, heap: 0, gloss: 1 })
    // Water alone is what it is of the whole: 700 ml of 700 + 1000 / 2.63.
    expect(looks[0]!.level).toBeCloseTo(700 / (700 + 1000 / 2.63), 2)
    expect(looks[4]!.level).toBeCloseTo(1, 9)
    for (const [i, look] of looks.entries()) {
      if (i > 0) expect(look.bed).toBeGreaterThan(looks[i - 1]!.bed)
      expect(look.bed).toBeLessThanOrEqual(look.level)
    }
    expect(looks[2]!.dryShare).toBe(0)
  })

  it('a crust is wet through fast at first, and at the end nothing dry is left', () => {
    const heaped = { classId: 'pop', waterG: 50, powderG: 100 } as const
    const [first, quarter, end] = [0, 0.25, 1].map((share) => soakingLook(heaped, share))
    expect(first).toEqual(siftingLook(heaped, 1))
    expect(quarter!.dryShare).toBeCloseTo(first!.dryShare / 2, 9)
    expect(quarter!.heap).toBeCloseTo(first!.heap / 2, 9)
    expect(end).toMatchObject({ dryShare: 0, heap: 0, gloss: 1, level: 1 })
    expect(end!.bed).toBeCloseTo(1, 9)
    expect(soakingLook(heaped, 7)).toEqual(end)
  })

  it('lumps go as it is stirred; a trail stays as it thickens; then the gloss goes, and a thin mix bleeds', () => {
    expect([0, 1 / 3, 2 / 3, 1].map((s) => Math.round(100 * stirringLook(s).lumps))).toEqual([100, 33, 11, 0])
    const at = (s: number, waterG = 70) =>
      settingLook({ classId: 'pottery', waterG, powderG: 100 }, s, {
        stirred: 300,
        workEnd: 600,
        initialSet: 900,
      })
    expect(at(300)).toMatchObject({ trail: 0, gloss: 1, bleed: 0 })
    expect(at(450).trail).toBeCloseTo(0.25, 9)
    expect(at(600)).toMatchObject({ trail: 1, gloss: 1 })
    expect(at(750).gloss).toBeCloseTo(0.5, 9)
    expect(at(2000)).toMatchObject({ trail: 1, gloss: 0 })
    expect(at(2000).bleed).toBe(0)
    expect(at(2000, 140).bleed).toBeGreaterThan(0.05)
    // Stirred past its working time it is thick at once, and never undefined.
    expect(
      settingLook({ classId: 'pop', waterG: 60, powderG: 100 }, 700, {
        stirred: 700,
        workEnd: 600,
        initialSet: 650,
      }),
    ).toMatchObject({ trail: 1, gloss: 0 })
  })
})

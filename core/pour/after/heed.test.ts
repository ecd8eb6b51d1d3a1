import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { testPlan } from '../../../tests/unit/plans'
import { CAUSES, type CauseId } from '../../finish'
import { HEED_AT, STAGES, heedAt, heeding, refusalsOf, type PourPlan } from '..'

describe('the next plan', () => {
  it('heeds any cause, and is one that can be poured, with something moved or something to keep in mind', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.constantFrom(...CAUSES), { minLength: 1, maxLength: 6 }), (causes) => {
        const plan = testPlan('pottery', {
          soakS: 20,
          stirS: 600,
          stirManner: 'drill',
          waterTempC: 12,
          water: 'sea',
          dryingExposure: 'one_face',
          consistency: 90,
        })
        const next = heeding(plan, causes)
        expect(refusalsOf(next)).toEqual([])
        expect(next.heed).toEqual(causes)
        for (const cause of causes) {
          expect(STAGES).toContain(HEED_AT[cause])
          expect(heedAt(next, HEED_AT[cause])).toContain(cause)
        }
        // Heeded twice it is the same plan, but for what can still be moved further.
        const again = heeding(next, causes)
        expect(again.heed).toEqual(causes)
      }),
    )
  })
  it('is better for it: what spoke for the cause speaks no more', () => {
    const plan = testPlan('pottery', { soakS: 20, script: { order: [], leftOut: ['tap'] } })
    const movedBy = (cause: CauseId) => {
      const { heed: _, ...next } = heeding(plan, [cause])
      return Object.entries(next)
        .filter(([key, value]) => JSON.stringify(plan[key as keyof PourPlan]) !== JSON.stringify(value))
        .map(([key]) => key)
    }
    expect([movedBy('soak_short'), movedBy('no_tap'), movedBy('knocked')]).toEqual([
      ['soakS'],
      ['script'],
      [],
    ])
    const next = heeding(plan, ['soak_short', 'no_tap'])
    expect(next.soakS).toBe(120)
    expect(next.script!.leftOut).toEqual([])
    expect(heeding(testPlan('investment', { soakS: 20 }), ['soak_short']).soakS).toBe(180)
    const thin = heeding(
      testPlan('pottery', { consistency: 95, ratioMethod: 'by_eye', siftStage: 'islands' }),
      ['too_thin'],
    )
    expect(thin).toMatchObject({ consistency: 70, ratioMethod: 'weighed' })
    expect('siftStage' in thin).toBe(false)
    expect(heeding(testPlan('pottery', { waterTempC: 6 }), ['cold']).waterTempC).toBe(24)
    expect(heeding(testPlan('pottery', { waterTempC: 20 }), ['past_working']).waterTempC).toBe(14)
    expect(heeding(testPlan('pottery', { waterTempC: 5 }), ['past_working']).waterTempC).toBe(5)
    expect(heeding(testPlan('pottery', { sparePct: 45 }), ['mixed_short']).sparePct).toBe(50)
    expect(heeding(testPlan('pottery', { stirS: 30 }), ['stirred_little']).stirS).toBe(120)
    expect(heeding(testPlan('pottery', { stirS: 300 }), ['stirred_little']).stirS).toBe(300)
    expect(heeding(testPlan('pottery', { stirS: 300 }), ['stirred_long']).stirS).toBe(120)
    const place = (tempC: number) => ({ placeId: null, name: 'Oven', air: { tempC, rhPct: 20, speedMS: 1 } })
    const dried = (tempC: number) => {
      const dryingPlace = { ...place(tempC), placeId: '00000000-0000-4000-8000-0000000000aa' }
      return heeding(testPlan('pottery', { dryingPlace }), ['dried_hot'])
    }
    expect('dryingPlace' in dried(60)).toBe(false)
    expect(dried(30).dryingPlace!.name).toBe('Oven')
  })
})

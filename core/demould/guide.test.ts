import { describe, expect, it } from 'vitest'
import { MOULD_KINDS, MOULD_MATERIALS, usualFacts, type MouldFacts } from '../mould'
import { DEMOULD_RULES, LATEST_OUT, wayOut } from '.'

const facts = (material: MouldFacts['material'], change: Partial<MouldFacts> = {}) => ({
  ...usualFacts(material),
  ...change,
})

describe('the way out (common practice, no source)', () => {
  it('every kind of mould has one, with nothing twice and something to do', () => {
    for (const kind of MOULD_KINDS)
      for (const material of [undefined, ...MOULD_MATERIALS]) {
        const { steps, tools } = wayOut(kind, material && usualFacts(material), undefined)
        expect(steps.length).toBeGreaterThan(0)
        expect(new Set(steps).size).toBe(steps.length)
        expect(new Set(tools).size).toBe(tools.length)
      }
  })
  it('a jacketed rubber mould: jacket off, cut opened, peeled from the base', () => {
    const { steps, usedUp } = wayOut(
      'silicone',
      facts('silicone', { support: 'mother_mould', build: 'cut_open' }),
      20,
    )
    const order = ['hold_warm', 'open_jacket', 'untape', 'open_cut', 'peel_from_base']
    expect(steps.filter((s) => order.includes(s))).toEqual(order)
    expect(steps).not.toContain('let_air_in')
    expect(usedUp).toBe(false)
  })
  it('a rigid bowl holds by suction until air is let in; one that is used up or comes apart does not', () => {
    expect(wayOut('rigid_plastic', facts('rigid_plastic'), 20).suction).toBe(true)
    expect(wayOut('rigid_plastic', facts('rigid_plastic', { build: 'parts' }), 20).suction).toBe(false)
    expect(wayOut('waste_clay', facts('wet_clay'), 20).suction).toBe(false)
  })
  it('latex: flange, talc, inside out, in this order', () => {
    const { steps, tools } = wayOut('latex', facts('latex'), 20)
    const [flange, talc, turn] = (['free_flange', 'talc_the_skin', 'turn_inside_out'] as const).map((s) =>
      steps.indexOf(s),
    )
    expect(talc! < flange! && flange! < turn!).toBe(true)
    expect(tools).toContain('talc')
  })
  it('a plaster waste mould is chipped away; a clay one is peeled; both are used up', () => {
    const chipped = wayOut('waste_clay', facts('plaster', { oneTime: true }), 20)
    expect(chipped.steps).toContain('chip_waste_away')
    expect(chipped.steps).not.toContain('peel_clay_from_rim')
    expect([chipped.usedUp, wayOut('waste_clay', facts('wet_clay'), 20).usedUp]).toEqual([true, true])
  })
  it('says what breaks first: fingers, hooks, lips of undercuts, thin edges', () => {
    const hand = wayOut('alginate', facts('alginate', { airTraps: ['deep_fingers'] }), 6)
    expect(hand.breaksFirst).toEqual(['fingers', 'thin_edges'])
    expect(hand.steps).toContain('support_fingers')
    const undercut = facts('silicone', { undercut: 'deep', airTraps: ['hooks', 'lettering'] })
    expect(wayOut('silicone', undercut, 8).breaksFirst).toEqual(['hooks', 'undercut_lips', 'lettering'])
    expect(wayOut('silicone', facts('silicone'), 7.9).breaksFirst).toEqual(['thin_edges'])
  })
  it('nothing must be out before it may come out', () => {
    for (const kind of MOULD_KINDS) {
      const latest = LATEST_OUT[kind]
      if (latest) expect(latest.latestMin).toBeGreaterThan(DEMOULD_RULES[kind].floorMin)
    }
  })
})

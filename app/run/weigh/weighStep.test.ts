import { effectScope, nextTick, shallowRef } from 'vue'
import { expect, it } from 'vitest'
import { foldPour, keepPlan, type EventBody } from '#core/pour'
import { eventAt, testPlan } from '../../../tests/unit/plans'
import { useWeighing, type WeighKnock } from './useWeighing'
import { isRight, weighPhaseOf, type ScaleSays } from './weighStep'

const TARGET_G = 700
const says = (massG: number | null, change: Partial<ScaleSays> = {}): ScaleSays => ({
  massG,
  stable: true,
  overload: massG === null,
  zeroedAtMs: 0,
  atMs: 0,
  ...change,
})
const phaseOf = (of: ScaleSays, zeroed = true, rightForMs = 0) =>
  weighPhaseOf(of, zeroed, TARGET_G, 1, rightForMs)

it('asks to be zeroed with the bowl on, fills, and offers the next step after two seconds of rest', () => {
  expect(phaseOf(says(236), false)).toEqual({ phase: 'zero' })
  expect(phaseOf(says(0)).phase).toBe('filling')
  expect(phaseOf(says(700, { stable: false })).phase).toBe('filling')
  const lies = phaseOf(says(702), true, 1999)
  expect(lies).toMatchObject({ phase: 'enough', offered: false })
  expect(isRight(lies)).toBe(true)
  expect(phaseOf(says(702), true, 2000)).toMatchObject({ offered: true })
  // Too much is enough, and offers nothing.
  const over = phaseOf(says(720), true, 9000)
  expect(over).toMatchObject({ phase: 'enough', offered: false })
  expect(isRight(over)).toBe(false)
})

it('overloaded it says so, zeroed or not', () => {
  expect(phaseOf(says(null), false)).toEqual({ phase: 'overload' })
})

/** A pour whose mould was ready after a second, its scale, and what a knock would do there. */
function atTheScale(plan = testPlan()) {
  const kept = keepPlan(plan)
  const events = shallowRef([eventAt(1000, { type: 'mould_ready' })])
  const scale = {
    says: shallowRef<ScaleSays>(),
    isExpected: shallowRef(true),
    isOwn: shallowRef(false),
    cite: () => ({}),
  }
  const record = () => ({
    id: 'p',
    plan: kept,
    revision: 1,
    earlierPlans: [],
    createdAtMs: 0,
    events: events.value,
  })
  const weighing = effectScope(true).run(() =>
    useWeighing(record, () => foldPour(kept, events.value), scale as never),
  )!
  return {
    weighing,
    scale,
    knock: (now: ScaleSays | undefined): WeighKnock => {
      scale.says.value = now
      return weighing.knock()
    },
    happens: async (atMs: number, body: EventBody) => {
      const event = eventAt(atMs, body)
      events.value = [...events.value, event]
      await nextTick()
      return event
    },
  }
}

it('zeroed before this step it is zeroed again; opened while the bowl fills it knows that it was', () => {
  const { knock } = atTheScale()
  expect(knock(says(0, { zeroedAtMs: 500 }))).toEqual({ by: 'scale', does: 'zero' })
  expect(knock(says(300, { zeroedAtMs: 2000 }))).toEqual({ by: 'scale', does: 'wait' })
  expect(knock(says(706, { zeroedAtMs: 2000 }))).toMatchObject({ does: 'record', massG: 706 })
  expect(knock(says(706, { zeroedAtMs: null })).does).toBe('zero')
})

it('taken back, a weighing goes on where it was, unless the scale was zeroed for the next one', async () => {
  const { knock, happens } = atTheScale()
  const weighed = await happens(9000, { type: 'weighed', what: 'water', massG: 706 })
  expect(knock(says(-236, { zeroedAtMs: 2000 })).does).toBe('zero')
  await happens(20_000, { type: 'void', targetId: weighed.id })
  expect(knock(says(706, { zeroedAtMs: 2000 })).does).toBe('record')
  expect(knock(says(706, { zeroedAtMs: 12_000 })).does).toBe('zero')
  expect(knock(says(706, { zeroedAtMs: 21_000 })).does).toBe('record')
})

it('where the scale says nothing, what was wanted is not taken for what was weighed', () => {
  const { weighing, scale, knock } = atTheScale()
  expect(knock(undefined)).toEqual({ by: 'nothing', does: 'wait' })
  expect(weighing.isSilent.value).toBe(true)
  expect(weighing.massG.value).toBeUndefined()
  weighing.massG.value = 710
  expect(knock(undefined)).toEqual({ by: 'typed', does: 'record', massG: 710 })
  // What was typed stands, whatever the scale says.
  expect(knock(says(300, { zeroedAtMs: 2000 }))).toMatchObject({ by: 'typed', massG: 710 })
  weighing.followScale()
  scale.isExpected.value = false
  expect(knock(undefined)).toEqual({ by: 'plan', does: 'record', massG: weighing.targetG.value })
})

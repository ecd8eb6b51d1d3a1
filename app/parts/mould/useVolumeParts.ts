import { computed, markRaw, ref, watch, type ModelRef } from 'vue'
import type { CavityDescription, CavityPart, CavityShape, VolumeBy, VolumeMethod } from '#core/mould'
import { SHOWN_WAYS } from './ways'
import { FIRST_SHAPES } from './ways/shape'

/**
 * The parts of a described volume under the hand: which is being described, and every way to change it.
 * @param told hears of a way chosen for the first part, and of what cannot be read in a field.
 */
export function useVolumeParts(
  volume: ModelRef<CavityDescription>,
  told: { way: (method: VolumeMethod) => void; problem: (field: string, message: string) => void },
) {
  /** The part in hand; `check` is the second way. */
  const slot = ref<number | 'check'>(0)
  watch(
    () => [volume.value.parts.length, volume.value.check === null] as const,
    ([parts, noCheck]) => {
      if ((slot.value === 'check' && noCheck) || (typeof slot.value === 'number' && slot.value >= parts))
        slot.value = 0
    },
  )
  const method = computed<VolumeMethod>(() =>
    slot.value === 'check' && volume.value.check
      ? volume.value.check
      : (volume.value.parts[typeof slot.value === 'number' ? slot.value : 0] ?? volume.value.parts[0]!)
          .method,
  )
  /**
   * A description is a value: replaced, never changed. Kept out of Vue's proxies, for the models read each of its numbers
   * many times on every move of a hand.
   */
  function putVolume(change: Partial<CavityDescription>) {
    volume.value = markRaw({ ...volume.value, ...change })
  }
  function putMethod(next: VolumeMethod) {
    if (slot.value === 'check') putVolume({ check: next })
    else putPart(slot.value, { method: next })
  }
  function putPart(index: number, change: Partial<CavityPart>) {
    const parts = volume.value.parts.map((p, i) => (i === index ? { ...p, ...change } : p))
    putVolume({ parts })
  }

  // What was typed for another way or form is still there when one comes back to it.
  const typedBefore = new Map<string, VolumeMethod>()
  const keyOf = (m: VolumeMethod) => `${slot.value}.${m.by}${m.by === 'shape' ? `.${m.shape.kind}` : ''}`
  function chooseWay(by: VolumeBy) {
    if (by === method.value.by) return
    typedBefore.set(keyOf(method.value), method.value)
    typedBefore.set(`${slot.value}.${method.value.by}`, method.value)
    clearProblems()
    putMethod(typedBefore.get(`${slot.value}.${by}`) ?? SHOWN_WAYS[by].first)
    if (slot.value === 0) told.way(method.value)
  }
  function chooseShape(kind: CavityShape['kind']) {
    typedBefore.set(keyOf(method.value), method.value)
    clearProblems()
    putMethod(typedBefore.get(`${slot.value}.shape.${kind}`) ?? { by: 'shape', shape: FIRST_SHAPES[kind] })
    if (slot.value === 0) told.way(method.value)
  }

  const problems = new Map<string, string>()
  function note(field: string, message: string) {
    problems.set(field, message)
    told.problem(`volume.${field}`, message)
  }
  /** A field that is no longer on the page cannot stand in the way. */
  function clearProblems() {
    for (const field of problems.keys()) told.problem(`volume.${field}`, '')
    problems.clear()
  }
  watch(slot, clearProblems)

  function addPart(role: CavityPart['role']) {
    const added: CavityPart = { role, count: 1, method: { by: 'shape', shape: FIRST_SHAPES.cylinder } }
    slot.value = volume.value.parts.length
    putVolume({ parts: [...volume.value.parts, added] })
  }
  function removeSlot() {
    if (slot.value === 'check') putVolume({ check: null, trust: 'parts' })
    else putVolume({ parts: volume.value.parts.filter((_, i) => i !== slot.value) })
    slot.value = 0
  }
  function addCheck() {
    const by = volume.value.parts.some((p) => p.method.by === 'water_fill') ? 'shape' : 'water_fill'
    putVolume({ check: SHOWN_WAYS[by].first })
    slot.value = 'check'
  }

  return {
    slot,
    method,
    putVolume,
    putMethod,
    putPart,
    chooseWay,
    chooseShape,
    note,
    addPart,
    removeSlot,
    addCheck,
  }
}

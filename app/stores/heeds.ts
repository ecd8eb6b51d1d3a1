import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { EventBody, HeedSubject } from '#core/pour'
import type { ChangeMessage } from '~~/shared/changes'
import type { HeedLine } from '~~/shared/heeds'
import { callKept } from './copies'
import { usePours } from './pours'

const TELLS: ReadonlySet<EventBody['type']> = new Set(['cause_kept', 'cause_mended', 'defect', 'void'])

/** Causes that were accepted and are not mended: asked for once, and again when an event may have changed them. */
export const useHeeds = defineStore('heeds', () => {
  const lines = shallowRef<HeedLine[]>([])
  /** Until then nothing is known of them: that is not the same as none. */
  const loaded = ref(false)
  const pours = usePours()

  async function load(): Promise<boolean> {
    const answer = await callKept<{ items: HeedLine[] }>('/api/heeds')
    if (answer.ok) {
      lines.value = answer.value.items
      loaded.value = true
    }
    return answer.ok
  }

  function hear(message: ChangeMessage) {
    if (message.topic === 'event' && TELLS.has(message.value.body.type)) void load()
  }

  const of = (subjects: readonly HeedSubject[]) => lines.value.filter((l) => subjects.includes(l.subject))

  /** Why a pour from this mould came out as it did, as it was accepted. */
  const causesIn = (mouldId: string, pourId: string) =>
    of([`mould:${mouldId}`]).flatMap((l) => (l.pourId === pourId ? [l.cause] : []))

  /** Said of all pours that it was found in: none of them reminds anybody any more. */
  async function mend(those: readonly HeedLine[]) {
    for (const { pourId, cause, subject } of those)
      await pours.record(pourId, { type: 'cause_mended', cause, subject })
    const gone = new Set(those)
    lines.value = lines.value.filter((l) => !gone.has(l))
  }

  return { lines, loaded, load, hear, of, causesIn, mend }
})

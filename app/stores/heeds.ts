import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { EventBody, HeedSubject } from '#core/pour'
import type { ChangeMessage } from '~~/shared/changes'
import type { HeedLine } from '~~/shared/heeds'
import { callApi } from './api'
import { usePours } from './pours'

const TELLS: ReadonlySet<EventBody['type']> = new Set(['cause_kept', 'cause_mended', 'defect', 'void'])

/** Causes that were accepted and are not mended: asked for once, and again when an event may have changed them. */
export const useHeeds = defineStore('heeds', () => {
  const lines = shallowRef<HeedLine[]>([])
  const pours = usePours()

  async function load(): Promise<boolean> {
    const answer = await callApi<{ items: HeedLine[] }>('/api/heeds')
    if (answer.ok) lines.value = answer.value.items
    return answer.ok
  }

  function hear(message: ChangeMessage) {
    if (message.topic === 'event' && TELLS.has(message.value.body.type)) void load()
  }

  const of = (subjects: readonly HeedSubject[]) => lines.value.filter((l) => subjects.includes(l.subject))

  /** Said of all pours that it was found in: none of them reminds anybody any more. */
  async function mend(those: readonly HeedLine[]) {
    for (const { pourId, cause, subject } of those)
      await pours.record(pourId, { type: 'cause_mended', cause, subject })
    const gone = new Set(those)
    lines.value = lines.value.filter((l) => !gone.has(l))
  }

  return { lines, load, hear, of, mend }
})

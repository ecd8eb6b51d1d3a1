import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { EventBody } from '#core/pour'
import type { ChangeMessage } from '~~/shared/changes'
import type { UpkeepLine } from '~~/shared/upkeep'
import { callKept } from './copies'

const TELLS: ReadonlySet<EventBody['type']> = new Set(['kept_up', 'finished', 'void'])

/** Pieces in use that want something: asked for once, and again when an event may have changed it. */
export const useUpkeep = defineStore('upkeep', () => {
  const lines = shallowRef<UpkeepLine[]>([])

  async function load(): Promise<boolean> {
    const answer = await callKept<{ items: UpkeepLine[] }>('/api/upkeep')
    if (answer.ok) lines.value = answer.value.items
    return answer.ok
  }

  function hear(message: ChangeMessage) {
    if (message.topic === 'event' && TELLS.has(message.value.body.type)) void load()
  }

  return { lines, load, hear }
})

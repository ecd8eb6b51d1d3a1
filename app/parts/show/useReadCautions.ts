import { createGlobalState } from '@vueuse/core'
import { useKept } from '~/stores/kept'
import type { CautionId } from './cautions'

/** Pours whose cautions this device remembers as read. */
const REMEMBERED = 12

/** Which cautions were read in which pour, on this device: the latest pours first. */
export const useReadCautions = createGlobalState(() => {
  const read = useKept<[pourId: string, cautions: CautionId[]][]>('nine-ripples.read-cautions', [])
  const readIn = (pourId: string) => read.value.find(([id]) => id === pourId)?.[1] ?? []
  return {
    isRead: (pourId: string, caution: CautionId) => readIn(pourId).includes(caution),
    markRead(pourId: string, cautions: readonly CautionId[]) {
      const all = [...new Set([...readIn(pourId), ...cautions])]
      if (all.length === readIn(pourId).length) return
      read.value = [
        [pourId, all] as [string, CautionId[]],
        ...read.value.filter(([id]) => id !== pourId),
      ].slice(0, REMEMBERED)
    },
  }
})

import { shallowRef, watch } from 'vue'
import { curveUntilS, type SetCurve } from '#core/forecast'
import { problemOf, type PourOutlook } from '#core/pour'
import { askForecast } from '~/workers/askForecast'

/** The curve of the piece in hand; the last good one stands until the next is there. */
export function useSetCurve(pourId: string, facts: () => PourOutlook) {
  const curve = shallowRef<SetCurve>()
  watch(
    facts,
    (now) => {
      const { inHand, learnt, demould } = now
      const pace = learnt?.pace ?? { meanLn: 0, sigmaLn: now.sigmaLn }
      const untilS = curveUntilS(demould.recommendedS, inHand.marks.coolS)
      askForecast(
        `curve ${pourId}`,
        { kind: 'curve', problem: problemOf(now, inHand), pace, untilS },
        (made) => (curve.value = made),
      )
    },
    { immediate: true },
  )
  return curve
}

import { computed } from 'vue'
import { compareByUrgency, viewPour } from '#core/pour'
import { MS_PER } from '#core/units'
import { useNowBy } from '~/stores/bench'
import { useForecasts } from '~/stores/forecasts'
import { usePours } from '~/stores/pours'
import { nextThing } from './nextThing'

/** The pours on the go as bench and wall tell them, by the second, the most urgent first. */
export function useOpenLines() {
  const pours = usePours()
  const forecasts = useForecasts()
  const now = useNowBy(MS_PER.s)
  const lines = computed(() =>
    pours.open
      .map(({ record, facts }) => {
        const view = viewPour(facts, now.value)
        return {
          id: record.id,
          piece: record.plan.piece,
          facts,
          view,
          /** In words, once they are asked for. */
          get next() {
            return nextThing(facts, view, now.value, forecasts.isLearning(record.id, facts))
          },
        }
      })
      // As urgent as each other: in an order that stays, which no alphabet has to be read in for before the bench is there.
      .sort(
        (a, b) => compareByUrgency(a.view, b.view) || (a.piece < b.piece ? -1 : Number(a.piece > b.piece)),
      ),
  )
  return { lines, now }
}

import { computed } from 'vue'
import type { Run } from '../useRun'

/** Two windows may look at different revisions of a plan: what was weighed for another one is asked about. */
export function useStale(run: Run) {
  const stale = computed(() => {
    const events = run.facts?.stale ?? []
    const revision = events[0]?.planRevision
    if (!run.record || revision === undefined) return undefined
    return {
      revision,
      events: events.filter((e) => e.planRevision === revision),
      plan: run.record.earlierPlans.find((p) => p.revision === revision)?.plan,
    }
  })
  return {
    stale,
    keep() {
      if (stale.value) run.put({ type: 'plan_holds', revision: stale.value.revision })
    },
    drop() {
      if (stale.value) run.put(...stale.value.events.map((e) => ({ type: 'void' as const, targetId: e.id })))
    },
  }
}

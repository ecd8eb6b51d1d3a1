import { defineStore } from 'pinia'
import { shallowReactive } from 'vue'
import { learnPace, type LearntForecast } from '#core/forecast'
import {
  evidenceOf,
  fits,
  forecastPour,
  outlookOf,
  type PourFacts,
  type PourForecast,
  type PourOutlook,
  type ProbeTrace,
} from '#core/pour'
import { askForecast } from '~/workers/askForecast'
import { useBench } from './bench'

interface Held {
  /** The facts and the probes that it was made for; while better ones are worked on, the last good one stands. */
  facts: PourFacts
  probes: readonly ProbeTrace[]
  forecast: PourForecast
  outlook: PourOutlook
}

const NO_PROBES: readonly ProbeTrace[] = []

/**
 * What the models make of each pour, beside its facts. What follows from the plan alone is worked out at once; what is
 * learnt from cues and thermometers comes from the worker, and until it is there the last good forecast stands.
 */
export const useForecasts = defineStore('forecasts', () => {
  const { clock } = useBench()
  const held = shallowReactive(new Map<string, Held>())
  const asked = new Map<string, { facts: PourFacts; probes: readonly ProbeTrace[] }>()
  const probesOf = shallowReactive(new Map<string, readonly ProbeTrace[]>())

  function hold(
    id: string,
    facts: PourFacts,
    probes: readonly ProbeTrace[],
    learnt: LearntForecast | undefined,
  ) {
    const forecast = forecastPour(facts, learnt)
    const kept: Held = { facts, probes, forecast, outlook: outlookOf(facts, forecast) }
    held.set(id, kept)
    return kept
  }

  const nowS = (facts: PourFacts) => Math.max(1, (clock.nowMs() - (facts.settingStartMs ?? 0)) / 1000)

  /** Facts with their forecast. For computed values: it reads what is held, and asks for better later. */
  function outlook(id: string, facts: PourFacts): PourOutlook {
    const probes = probesOf.get(id) ?? NO_PROBES
    const known = held.get(id)
    if (known?.facts === facts && known.probes === probes) return known.outlook
    const evidence = evidenceOf(facts, probes)
    const nothingSeen = !evidence || (evidence.cues.length === 0 && evidence.probes.length === 0)
    const isOut = facts.doneAtMs.demould !== undefined
    if (!evidence || (isOut && nothingSeen)) {
      const made = forecastPour(facts)
      queueMicrotask(() => hold(id, facts, probes, undefined))
      return outlookOf(facts, made)
    }
    if (!known || !fits(facts, known.forecast)) {
      // Seen for the first time in this window: shown as it is, not as it would be had nobody looked.
      const learnt = nothingSeen || isOut ? undefined : learnPace(evidence, nowS(facts))
      const made = forecastPour(facts, learnt)
      queueMicrotask(() => {
        if (!learnt) held.set(id, { facts, probes, forecast: made, outlook: outlookOf(facts, made) })
        else hold(id, facts, probes, learnt)
        if (!learnt) ask(id, facts, probes)
      })
      return outlookOf(facts, made)
    }
    queueMicrotask(() => ask(id, facts, probes))
    return outlookOf(facts, known.forecast)
  }

  function ask(id: string, facts: PourFacts, probes: readonly ProbeTrace[]) {
    const last = asked.get(id)
    if (last?.facts === facts && last.probes === probes) return
    const evidence = evidenceOf(facts, probes)
    if (!evidence) return
    asked.set(id, { facts, probes })
    askForecast(`learn ${id}`, { kind: 'learn', evidence, nowS: nowS(facts) }, (learnt) =>
      hold(id, facts, probes, learnt),
    )
  }

  /** What the thermometers in a pour have said so far. */
  function setProbes(id: string, traces: readonly ProbeTrace[]) {
    probesOf.set(id, traces)
  }

  return { outlook, setProbes, probesOf }
})

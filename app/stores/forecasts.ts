import { defineStore } from 'pinia'
import { shallowReactive } from 'vue'
import { learnPace, type EvidenceOf, type LearntForecast } from '#core/forecast'
import {
  evidenceOf,
  filledMs,
  fits,
  forecastPour,
  outlookOf,
  tracesThatCount,
  type PourFacts,
  type PourForecast,
  type PourOutlook,
  type ProbeTrace,
} from '#core/pour'
import { askForecast } from '~/workers/askForecast'
import { useBench } from './bench'
import { BUILD } from './build'
import { isNight } from './habits'

/** A forecast as this device keeps it, so that a window opened anew need not work it out before it shows anything. */
export interface KeptForecast {
  id: string
  /** What it is of, and by which build: of anything else it is not. */
  of: string
  /** What was seen, in short: the same again teaches nothing. */
  seen: string
  learnt: LearntForecast | undefined
  forecast: PourForecast
}

interface Held {
  /** The facts and the probes that it was made for; while better ones are worked on, the last good one stands. */
  facts: PourFacts
  probes: readonly ProbeTrace[]
  kept: KeptForecast
  outlook: PourOutlook
  /** It stands until what was asked of the worker is there. */
  isFirst?: boolean
}

const NO_PROBES: readonly ProbeTrace[] = []

const ofThese = ({ plan, live, stale }: PourFacts) => JSON.stringify([BUILD, plan, live, stale])

const shortOf = (evidence: EvidenceOf | undefined) =>
  evidence
    ? JSON.stringify([
        evidence.problem,
        evidence.cues,
        evidence.probes.map(({ readings, ...of }) => [of, readings.length, readings[0], readings.at(-1)]),
      ])
    : ''

/**
 * What the models make of each pour, beside its facts. What follows from the plan alone is worked out at once; what is
 * learnt from cues and thermometers comes from the worker, and until it is there the last good forecast stands.
 */
export const useForecasts = defineStore('forecasts', () => {
  const { clock } = useBench()
  const held = shallowReactive(new Map<string, Held>())
  const asked = new Map<string, string>()
  const probesOf = shallowReactive(new Map<string, readonly ProbeTrace[]>())
  /** Pours of which this window knows what their thermometers have said, or that it cannot be had. */
  const heardOf = shallowReactive(new Set<string>())

  const nowS = (facts: PourFacts) => Math.max(1, (clock.nowMs() - (facts.settingStartMs ?? 0)) / 1000)

  const made = (
    facts: PourFacts,
    probes: readonly ProbeTrace[],
    kept: Pick<KeptForecast, 'id' | 'seen' | 'learnt'>,
    forecast = forecastPour(facts, kept.learnt, isNight),
  ): Held => ({
    facts,
    probes,
    kept: { ...kept, of: ofThese(facts), forecast },
    outlook: outlookOf(facts, forecast),
  })
  /** Not while a computed value is being worked out: it would set itself off. */
  const holdLater = (id: string, next: Held, isWanted = () => true) =>
    queueMicrotask(() => isWanted() && held.set(id, next))

  /** Facts with their forecast. For computed values: it reads what is held, and asks for better later. */
  function outlook(id: string, facts: PourFacts): PourOutlook {
    const probes = probesOf.get(id) ?? NO_PROBES
    const known = held.get(id)
    if (known?.facts === facts && known.probes === probes) return known.outlook
    // The same, told anew or kept from before: it forecasts the same.
    const kept = known ? (known.probes === probes ? known.kept : undefined) : fromBefore.get(id)
    if (kept && kept.of === ofThese(facts)) {
      const again: Held = {
        ...made(facts, known ? probes : NO_PROBES, kept, kept.forecast),
        isFirst: known?.isFirst,
      }
      holdLater(id, again, () => held.get(id) === known)
      return again.outlook
    }
    const evidence = evidenceOf(facts, probes)
    const seen = shortOf(evidence)
    const hold = (learnt: LearntForecast | undefined) => {
      const now = made(facts, probes, { id, seen, learnt })
      holdLater(id, now)
      return now.outlook
    }
    // A note, a weighing: nothing that the setting follows from.
    if (known?.kept.seen === seen) return hold(known.kept.learnt)
    const nothingSeen = !evidence || (evidence.cues.length === 0 && evidence.probes.length === 0)
    const isOut = facts.doneAtMs.demould !== undefined
    if (!evidence || (isOut && nothingSeen)) return hold(undefined)
    if (known && fits(facts, known.kept.forecast)) {
      ask(id, facts, probes, evidence, seen)
      return outlookOf(facts, known.kept.forecast)
    }
    // Seen for the first time in this window: shown as it is, not as it would be had nobody looked.
    if (!nothingSeen && !isOut) return hold(learnPace(evidence, nowS(facts)))
    ask(id, facts, probes, evidence, seen)
    const first: Held = { ...made(facts, probes, { id, seen: '', learnt: undefined }), isFirst: true }
    holdLater(id, first, () => !held.has(id))
    return first.outlook
  }

  function ask(
    id: string,
    facts: PourFacts,
    probes: readonly ProbeTrace[],
    evidence: EvidenceOf,
    seen: string,
  ) {
    if (asked.get(id) === seen) return
    asked.set(id, seen)
    askForecast(
      `learn ${id}`,
      { kind: 'learn', evidence, nowS: nowS(facts) },
      (learnt) => {
        asked.delete(id)
        held.set(id, made(facts, probes, { id, seen, learnt }))
      },
      () => asked.delete(id),
    )
  }

  /** What this device keeps of them. */
  const fromBefore = new Map<string, KeptForecast>()
  function fill(kept: readonly KeptForecast[]) {
    for (const forecast of kept) fromBefore.set(forecast.id, forecast)
  }
  function keptOf(id: string): KeptForecast | undefined {
    const known = held.get(id)
    return known?.isFirst ? undefined : known?.kept
  }

  /** What the thermometers in a pour have said so far. */
  function setProbes(id: string, traces: readonly ProbeTrace[]) {
    probesOf.set(id, traces)
    heardOf.add(id)
  }
  /** The same as it counts for this pour: in °C, and without what was read elsewhere. */
  const tracesOf = (id: string, facts: Pick<PourFacts, 'live'>) =>
    tracesThatCount(facts, probesOf.get(id) ?? NO_PROBES)
  /** It cannot be had: the forecast stands without it. */
  function setUnheard(id: string) {
    heardOf.add(id)
  }
  /**
   * Whether what this window shows of a setting piece leaves out what was seen of it: until its thermometers are asked,
   * and what they said is learnt from. A moment, in which no time is to be read off.
   */
  function isLearning(id: string, facts: PourFacts): boolean {
    if (filledMs(facts.doneAtMs) === undefined || facts.doneAtMs.demould !== undefined) return false
    if (!heardOf.has(id)) return true
    const known = held.get(id)
    const hasReadings = (of: readonly ProbeTrace[] | undefined) =>
      of?.some((t) => t.readings.length > 0) ?? false
    // Once some of it was learnt from, what comes on top only sharpens it.
    return hasReadings(probesOf.get(id)) && !(known?.kept.learnt && hasReadings(known.probes))
  }

  return { outlook, fill, keptOf, setProbes, setUnheard, isLearning, tracesOf }
})

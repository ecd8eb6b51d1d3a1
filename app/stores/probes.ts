import { defineStore } from 'pinia'
import { watch } from 'vue'
import type { PourFacts, ProbeTrace } from '#core/pour'
import { filledMs, isTempChannel } from '#core/pour'
import type { KeptReading } from '~~/shared/devices'
import { callApi, type ApiFailure } from './api'
import { useBench } from './bench'
import { useDevices } from './devices'
import { useForecasts } from './forecasts'
import { usePours } from './pours'
import { useWorkshop } from './workshop'

/** A reading of each thermometer is taken into the forecast so often. */
const EVERY_MS = 20_000

/** Which thermometer, in which bowl. */
type Source = Omit<ProbeTrace, 'readings'>

/** A logger's readings as they are sent, named by what its file holds. */
export interface LoggerReadings {
  file: string
  batch: number
  readings: { atMs: number; tempC: number }[]
}

/**
 * What the thermometers in setting pieces have said, from the workshop's record and on as they speak, handed to the
 * forecasts. One for the whole window: a pour looks the same on every page.
 */
export const useProbes = defineStore('probes', () => {
  const pours = usePours()
  const workshop = useWorkshop()
  const devices = useDevices()
  const forecasts = useForecasts()
  const { clock, isReal } = useBench()
  const traces = new Map<string, ProbeTrace[]>()

  const sets = (facts: PourFacts) =>
    filledMs(facts.doneAtMs) !== undefined && facts.doneAtMs.demould === undefined

  const find = (of: readonly ProbeTrace[], { device, channel, batch }: Source) =>
    of.find((t) => t.device === device && t.channel === channel && t.batch === batch)

  function add(pourId: string, source: Source, reading: ProbeTrace['readings'][number]) {
    const known = traces.get(pourId) ?? []
    const own = find(known, source)
    if (own && own.readings.at(-1)!.atMs >= reading.atMs) return
    const next = { ...source, readings: [...(own?.readings ?? []), reading] }
    traces.set(pourId, [...known.filter((t) => t !== own), next])
  }

  /** What was read of a pour before this window looked. */
  async function fetchOf(pourId: string) {
    traces.set(pourId, [])
    const answer = await callApi<KeptReading[]>(`/api/pours/${encodeURIComponent(pourId)}/readings`)
    if (!answer.ok) {
      traces.delete(pourId)
      forecasts.setUnheard(pourId)
      return
    }
    for (const { device, channel, batch, atMs, value } of answer.value)
      if (isTempChannel(channel)) add(pourId, { device, channel, batch }, { atMs, tempC: value })
    forecasts.setProbes(pourId, traces.get(pourId)!)
  }

  /** What they say now, taken in so often that a curve comes of it. */
  function listen() {
    const atMs = clock.nowMs()
    const heard = new Set<string>()
    for (const { id, uses } of workshop.devices)
      for (const { channel, pourId, batch } of uses) {
        const said = devices.now.get(id)?.temps[channel]
        const known = traces.get(pourId)
        if (!said || !known || !isTempChannel(channel)) continue
        const source = { device: id, channel, batch }
        const last = find(known, source)?.readings.at(-1)
        if (last && atMs - last.atMs < EVERY_MS) continue
        add(pourId, source, { atMs, tempC: said.tempC })
        heard.add(pourId)
      }
    for (const pourId of heard) forecasts.setProbes(pourId, traces.get(pourId)!)
  }

  /** For the application's shell, once. */
  function start() {
    watch(
      () => pours.open.filter(({ facts }) => sets(facts)).map((p) => p.record.id),
      (ids) => ids.filter((id) => !traces.has(id)).forEach((id) => void fetchOf(id)),
      { immediate: true },
    )
    // A rehearsal's clock is not the thermometers'.
    if (isReal) watch(() => [...devices.now.values()], listen)
  }

  /** A logger's file, read, put to a pour. @returns why not, when it cannot be. */
  async function addFile(pourId: string, file: LoggerReadings): Promise<ApiFailure | undefined> {
    const answer = await callApi(`/api/pours/${encodeURIComponent(pourId)}/readings`, {
      method: 'POST',
      body: file,
    })
    if (!answer.ok) return answer.failure
    await fetchOf(pourId)
    return undefined
  }
  async function removeFile(pourId: string, file: string): Promise<ApiFailure | undefined> {
    const path = `/api/pours/${encodeURIComponent(pourId)}/readings?file=${encodeURIComponent(file)}`
    const answer = await callApi(path, { method: 'DELETE' })
    if (!answer.ok) return answer.failure
    await fetchOf(pourId)
    return undefined
  }

  return { start, addFile, removeFile }
})

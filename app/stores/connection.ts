import { promiseTimeout } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import { backOffMs } from '~~/shared/backOff'
import { BEAT_MS, type BeatMessage, type ChangeMessage, type HelloMessage } from '~~/shared/changes'
import type { LiveMessage } from '~~/shared/devices'
import { callApi, lookAtDisk } from './api'
import { useBench } from './bench'
import { agreesWith, elapsedMs, syncClock } from './clock'
import { useCommands } from './commands'
import { isOffline } from './copies'
import { useDeviceCopy } from './deviceCopy'
import { useDevices } from './devices'
import { useOutbox } from './outbox'
import { isLetIn, isStranger, lookWhereWeAre, lostPlace, workshopHere } from './place'
import { loadMe } from './me'
import { usePeople } from './people'
import { usePhotos } from './photos'
import { usePours } from './pours'
import { useHeeds } from './heeds'
import { useUpkeep } from './upkeep'
import { useShell } from './shell'
import { onWindowMessage, tellWindows, whenLeading } from './windows'
import { useWorkshop } from './workshop'

/** By then what was under way has come. */
const ASK_AGAIN_MS = 2000
const RECONNECT = { firstMs: 1000, longestMs: 15_000 }
/** A device says that it is here at the least this often. */
const LOOK_EVERY_MS = 3000
/** A workshop in the same house answers sooner. */
const SLOW_MS = 1500
/** Silence for longer, and nobody is there any more. */
const SILENT_MS = 2.5 * BEAT_MS

/**
 * The workshop's live stream, one for all windows of this browser: what changes anywhere shows here, and what was
 * recorded here goes out. Comes back by itself, from the number it had reached.
 */
export const useConnection = defineStore('connection', () => {
  const pours = usePours()
  const people = usePeople()
  const workshop = useWorkshop()
  const outbox = useOutbox()
  const photos = usePhotos()
  const commands = useCommands()
  const copy = useDeviceCopy()
  const devices = useDevices()
  const upkeep = useUpkeep()
  const heeds = useHeeds()
  const shell = useShell()
  const { isReal } = useBench()
  const connected = ref(true)
  /** Something of the workshop could not be had when it was loaded; it is asked for again. */
  const incomplete = ref(false)
  let leads = false
  let started = false
  /** Changes up to here are in the stores; undefined until they have been loaded once. */
  let reached: number | undefined
  /** What arrives while everything is being loaded: put on afterwards, for the load may be older. */
  let arrived: ChangeMessage[] | undefined
  let heardMs = elapsedMs()

  function apply(messages: readonly ChangeMessage[]) {
    if (arrived) {
      arrived.push(...messages)
      return
    }
    for (const message of messages) {
      if (reached !== undefined && message.seq <= reached) continue
      // Where something is missing, the place stands: whatever came after is asked for again.
      if (!incomplete.value) reached = message.seq
      if (message.topic === 'event' || message.topic === 'pour') pours.apply(message)
      else if (message.topic === 'person') people.hear(message)
      else workshop.apply(message)
      upkeep.hear(message)
      heeds.hear(message)
    }
  }

  let loading: Promise<void> | undefined
  /** Everything, as it is now; asked first where the log stands, so that nothing falls between. */
  function load(): Promise<void> {
    loading ??= (async () => {
      arrived ??= []
      // Where the workshop does not answer, or takes its time, what this device keeps of it is shown meanwhile.
      let reading = reached === undefined ? undefined : Promise.resolve()
      const readIn = () => (reading ??= copy.readIn().then(commands.showAll))
      // Out there nobody answers: it is asked all the same, for a workshop in this device needs no network.
      if (isOffline()) void readIn()
      const slow = setTimeout(readIn, SLOW_MS)
      const time = await syncClock()
      // The bench stands before all the rest is asked in vain; a browser that cannot read what it keeps holds up nobody.
      if (!time) await Promise.race([readIn(), promiseTimeout(SLOW_MS)])
      const had = await Promise.all([
        workshop.load(),
        pours.loadOpen(),
        upkeep.load(),
        heeds.load(),
        loadMe(),
        people.refresh(),
      ])
      clearTimeout(slow)
      incomplete.value = !time || !had.every(Boolean)
      if (incomplete.value) void readIn()
      else copy.asOfMs = undefined
      commands.showAll()
      if (time && !incomplete.value) reached = time.seq
      const since = arrived
      arrived = undefined
      apply(since)
    })().finally(() => {
      loading = undefined
      loadAgain()
    })
    return loading
  }

  let failedLoads = 0
  let again: ReturnType<typeof setTimeout> | undefined
  /** With more and more time between, until all of it was had. */
  function loadAgain() {
    clearTimeout(again)
    failedLoads = incomplete.value ? failedLoads + 1 : 0
    if (failedLoads === 0 || isStranger.value) return
    again = setTimeout(() => void load().then(() => pours.refresh()), backOffMs(failedLoads, RECONNECT))
  }

  let lookedMs = -Infinity
  /** A device that nobody knew is noted once somebody looks; what is noted comes by the stream. */
  function lookAtStrangers(messages: readonly LiveMessage[]) {
    const isKnown = (id: string) => workshop.devices.some((d) => d.id === id)
    if (!messages.some((m) => m.kind === 'here' && m.here && !isKnown(m.device))) return
    if (elapsedMs() - lookedMs < LOOK_EVERY_MS) return
    lookedMs = elapsedMs()
    void callApi('/api/devices')
  }

  function setConnected(now: boolean) {
    connected.value = now
    if (leads) tellWindows({ kind: 'state', connected: now })
  }

  let source: EventSource | undefined
  let failures = 0
  let reconnecting: ReturnType<typeof setTimeout> | undefined

  function reconnect() {
    source?.close()
    source = undefined
    setConnected(false)
    clearTimeout(reconnecting)
    failures += 1
    if (!isStranger.value) reconnecting = setTimeout(connect, backOffMs(failures, RECONNECT))
  }

  function connect() {
    heardMs = elapsedMs()
    const opened = new EventSource(
      `/api/changes?window=${workshopHere}${reached === undefined ? '' : `&since=${reached}`}`,
    )
    source = opened
    const on = <T>(kind: string, listener: (data: T) => void) =>
      opened.addEventListener(kind, (event: MessageEvent<string>) => {
        // One that was given up may still have something to say.
        if (source !== opened) return
        heardMs = elapsedMs()
        listener(JSON.parse(event.data) as T)
      })
    on<HelloMessage>('hello', (hello) => {
      failures = 0
      setConnected(true)
      if (!agreesWith(hello.serverTimeMs)) void syncClock()
      // Rights that were changed before it stood are not told by it.
      void loadMe()
      if (hello.reset || reached === undefined || incomplete.value) {
        tellWindows({ kind: 'reset' })
        void load().then(() => pours.refresh())
      }
      void outbox.flushNow().then(photos.sendWaiting)
      copy.fetchOld()
      // A workshop that was away may have come back with another application.
      shell.lookForNewer()
    })
    on<ChangeMessage>('change', (message) => {
      apply([message])
      tellWindows({ kind: 'changes', messages: [message] })
    })
    on<LiveMessage[]>('live', (messages) => {
      devices.hear(messages)
      lookAtStrangers(messages)
      tellWindows({ kind: 'live', messages })
    })
    on<BeatMessage>('beat', ({ serverTimeMs }) => {
      setConnected(true)
      if (!agreesWith(serverTimeMs)) void syncClock()
      void outbox.look().then(() => outbox.flush())
    })
    on('dropped', reconnect)
    opened.addEventListener('error', () => {
      if (source !== opened) return
      // Why it was refused it cannot say.
      void loadMe()
      reconnect()
    })
  }

  /** For the application's shell, once. */
  function start() {
    if (started) return
    started = true
    // What this window shows is as it was when it was opened; from there it goes its own way.
    if (!isReal) {
      void load()
      return
    }
    // An answer that was under way while this device was let in says nothing: once more, and what is true stands.
    watch(lostPlace, (lost) => {
      if (lost === 'sign_in' && isLetIn) setTimeout(() => void callApi('/api/settings'), ASK_AGAIN_MS)
    })
    onWindowMessage((message) => {
      if (message.kind === 'state') {
        heardMs = elapsedMs()
        connected.value = message.connected
      } else if (message.kind === 'changes') apply(message.messages)
      else if (message.kind === 'live') devices.hear(message.messages)
      else if (message.kind === 'reset') void load().then(() => pours.refresh())
      else if (message.kind === 'look' && leads) setConnected(connected.value)
    })
    // Said before anything is loaded, and answered by the one that leads.
    void outbox.start((pourId, event) => pours.addStored(pourId, event))
    // Out of reach they come with all the rest.
    if (!isOffline()) void copy.readForecasts()
    const loaded = load()
    whenLeading(() => {
      leads = true
      void outbox.lead()
      void photos.sendWaiting()
      // Where this window has got to is where the stream goes on.
      void loaded.then(connect)
      void loaded.then(copy.follow)
    })
    setInterval(() => {
      if (isStranger.value) return
      void lookAtDisk()
      lookWhereWeAre()
      if (elapsedMs() - heardMs < SILENT_MS) return
      if (leads && source) reconnect()
      else if (!leads) connected.value = false
    }, 5000)
    addEventListener('online', () => leads && !source && (clearTimeout(reconnecting), connect()))
  }

  return { connected, incomplete, start, load }
})

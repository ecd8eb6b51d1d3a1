import { PLASTER_CLASS_IDS } from '../core/plaster'
import { z } from 'zod'
import { diceOf } from './dice'
import { DeviceLine } from './line'
import { PROBE, ProbeModel, SettingPiece } from './probeModel'
import { BENCH_SCALE, ScaleModel, type ScaleKind } from './scaleModel'
import { DEVICE_BEAT_MS } from '../shared/changes'

/** A scale says what it shows this often; a thermometer once a second. */
const SCALE_MS = 200
const PROBE_MS = 1000

/** What somebody does at a stand-in. Each is what a hand would do at the real thing. */
export const actSchema = z.discriminatedUnion('do', [
  z.object({
    do: z.literal('add'),
    massG: z.number().min(-20_000).max(20_000),
    overS: z.number().min(0).max(600).optional(),
  }),
  z.object({ do: z.literal('clear') }),
  z.object({ do: z.literal('draught'), on: z.boolean() }),
  z.object({ do: z.literal('tare') }),
  z.object({ do: z.literal('press') }),
  z.object({ do: z.literal('pull') }),
  z.object({ do: z.literal('plug_in') }),
  z.object({
    do: z.literal('into_plaster'),
    channel: z.int().min(1).max(4),
    classId: z.enum(PLASTER_CLASS_IDS),
    consistency: z.number().min(20).max(150),
    tempC: z.number().min(0).max(45),
    /** Mixed so long ago. */
    ageS: z.number().min(0).max(86_400).optional(),
    /** Sets in so much of its usual time. */
    pace: z.number().min(0.3).max(3).optional(),
  }),
  z.object({ do: z.literal('kill_channel'), channel: z.int().min(1).max(4), dead: z.boolean() }),
])
export type Act = z.infer<typeof actSchema>

export interface StandIn {
  id: string
  name: string
  kind: 'scale' | 'probe' | 'button'
  act: (act: Act) => void
  /** In words, for its page. */
  shows: () => string
  stop: () => void
}

/** A scale that is not there. */
export function scaleStandIn(
  port: number,
  id: string,
  name: string,
  kind: ScaleKind = BENCH_SCALE,
  seed = 1,
): StandIn {
  const model = new ScaleModel(kind, diceOf(seed))
  const line = new DeviceLine(port, id, name, (command) => command === 'tare' && model.tare())
  let last = model.step(0)
  let beforeMs = performance.now()
  const timer = setInterval(() => {
    const nowMs = performance.now()
    last = model.step((nowMs - beforeMs) / 1000)
    beforeMs = nowMs
    const { massG, ...rest } = last
    line.say({ type: 'mass', value: massG, unit: 'g', ...rest })
  }, SCALE_MS)
  return {
    id,
    name,
    kind: 'scale',
    act(act) {
      if (act.do === 'add') model.add(act.massG, act.overS)
      else if (act.do === 'clear') model.clear()
      else if (act.do === 'draught') model.draughty = act.on
      else if (act.do === 'tare') model.tare()
      else plug(line, act)
    },
    shows: () => (last.overload ? 'OL' : `${last.massG} g${last.stable ? '' : ' …'}`),
    stop() {
      clearInterval(timer)
      line.pull()
    },
  }
}

/** A thermometer with several sockets that is not there. */
export function probeStandIn(
  port: number,
  id: string,
  name: string,
  channels: number,
  roomC: number,
  seed = 2,
): StandIn {
  const models = Array.from({ length: channels }, (_, i) => new ProbeModel(PROBE, roomC, diceOf(seed + i)))
  const line = new DeviceLine(port, id, name)
  let last: (number | null)[] = models.map(() => null)
  let beforeMs = performance.now()
  const timer = setInterval(() => {
    const nowMs = performance.now()
    last = models.map((m) => m.step((nowMs - beforeMs) / 1000))
    beforeMs = nowMs
    last.forEach((tempC, i) => line.say({ type: 'temperature', channel: i + 1, tempC }))
  }, PROBE_MS)
  return {
    id,
    name,
    kind: 'probe',
    act(act) {
      const model = 'channel' in act ? models[act.channel - 1] : undefined
      if (act.do === 'into_plaster' && model) putInto(model, act, roomC)
      else if (act.do === 'kill_channel' && model) model.dead = act.dead
      else if (act.do === 'clear') for (const m of models) m.piece = undefined
      else plug(line, act)
    },
    shows: () => last.map((t) => (t === null ? '–' : `${t} °C`)).join('   '),
    stop() {
      clearInterval(timer)
      line.pull()
    },
  }
}

/** A button under the bench that is not there. */
export function buttonStandIn(port: number, id: string, name: string): StandIn {
  const line = new DeviceLine(port, id, name)
  const timer = setInterval(() => line.say({ type: 'beat' }), DEVICE_BEAT_MS / 2)
  let presses = 0
  return {
    id,
    name,
    kind: 'button',
    act(act) {
      if (act.do === 'press') {
        presses += 1
        line.say({ type: 'button', button: 1 })
      } else plug(line, act)
    },
    shows: () => `${presses} pressed`,
    stop() {
      clearInterval(timer)
      line.pull()
    },
  }
}

/** A socket that goes into plaster now, or one that has sat in it since it was poured. */
function putInto(model: ProbeModel, act: Extract<Act, { do: 'into_plaster' }>, roomC: number) {
  const piece = new SettingPiece(act.classId, act.consistency, roomC, act.tempC, act.ageS, act.pace)
  if (act.ageS === undefined) model.piece = piece
  else model.settleIn(piece)
}

function plug(line: DeviceLine, act: Act): void {
  if (act.do === 'pull') line.pull()
  if (act.do === 'plug_in') line.plugIn()
}

import type { PourEvent } from '../core/pour'
import type { SettingsRecord } from './contracts'
import type { DeviceCard } from './devices'
import type { PlaceCard } from './learning'
import type { MouldCard, MouldSet } from './moulds'
import type { PersonCard } from './people'
import type { PourAnswer, UnreadableCard } from './records'
import type { BagCard, BowlCard, PlasterCard, Recipe, SettlingEntry } from './stock'

/** The live stream: what changed, as data. */

/** What each topic carries; null where it is there no more. */
export interface ChangeValues {
  /** Made, planned anew, or no longer readable: the pour as a whole. */
  pour: PourAnswer
  /** One thing that happened; `id` is its pour's. */
  event: PourEvent
  plaster: PlasterCard | UnreadableCard | null
  bag: BagCard | UnreadableCard | null
  bowl: BowlCard | null
  recipe: Recipe | UnreadableCard | null
  mould: MouldCard | UnreadableCard | null
  mould_set: MouldSet | null
  settings: SettingsRecord
  device: DeviceCard | null
  settling: SettlingEntry | null
  place: PlaceCard | null
  /** For whoever keeps the workshop. */
  person: PersonCard | null
}
export type ChangeTopic = keyof ChangeValues

export type ChangeMessage = {
  [T in ChangeTopic]: { seq: number; topic: T; id: string; value: ChangeValues[T] }
}[ChangeTopic]

/** First message of the stream. `reset` asks the client to load everything again: it was away too long. */
export interface HelloMessage {
  seq: number
  serverTimeMs: number
  reset: boolean
}

/** Each `BEAT_MS`, so that silence means that nobody is there. */
export interface BeatMessage {
  serverTimeMs: number
}
export const BEAT_MS = 15_000

/** A device that has nothing to say says so this often at the least. */
export const DEVICE_BEAT_MS = 5000
/** Not heard for longer, and it is not there. */
export const DEVICE_SILENT_MS = 2.5 * DEVICE_BEAT_MS

/** Where the clock and the stream stand: asked before anything is loaded, so that nothing falls between. */
export interface TimeAnswer {
  serverTimeMs: number
  seq: number
}

import type { PourEvent } from '#core/pour'
import type { ChangeMessage } from '~~/shared/changes'
import type { LiveMessage } from '~~/shared/devices'
import type { Command, RefusedCommand } from './commandBox'
import type { Refused, Unsent } from './eventBox'
import { placed } from './place'

/** What the windows of one browser tell each other. One of them leads: it alone holds the stream and sends. */
export type WindowMessage =
  /** From the one that leads: whether the workshop is heard, and what it said. */
  | { kind: 'state'; connected: boolean }
  | { kind: 'changes'; messages: ChangeMessage[] }
  /** What devices say, as it happens. */
  | { kind: 'live'; messages: LiveMessage[] }
  /** Too long away: everything is loaded again. */
  | { kind: 'reset' }
  /** From any: something waits to be sent, or was looked for by a new window. */
  | { kind: 'recorded'; rows: Unsent[] }
  | { kind: 'look' }
  /** A refused event is on its way again, perhaps corrected. */
  | { kind: 'sent_again'; refusedId: string; row: Unsent }
  /** Something was asked of the workshop while it did not answer, and what became of it. */
  | { kind: 'command'; command: Command }
  | { kind: 'command_settled'; id: string; refused?: RefusedCommand }
  /** An event has left the box: stored, refused, or thrown away. */
  | { kind: 'settled'; pourId: string; eventId: string; stored?: PourEvent; refused?: Refused }

const CHANNEL = placed('nine-ripples')
const LEAD = placed('nine-ripples.lead')

let channel: BroadcastChannel | undefined
const heard = new Set<(message: WindowMessage) => void>()

/** To every other window. */
export function tellWindows(message: WindowMessage): void {
  channel ??= openChannel()
  channel.postMessage(message)
}

export function onWindowMessage(listener: (message: WindowMessage) => void): void {
  channel ??= openChannel()
  heard.add(listener)
}

/** A window that may not speak to others is alone. */
const ALONE = { postMessage: () => {}, onmessage: null } as unknown as BroadcastChannel

function openChannel(): BroadcastChannel {
  let opened: BroadcastChannel
  try {
    opened = new BroadcastChannel(CHANNEL)
  } catch {
    return ALONE
  }
  opened.onmessage = ({ data }: MessageEvent<WindowMessage>) => heard.forEach((listener) => listener(data))
  return opened
}

/**
 * Runs it once this window leads: at once where it is alone, else when the one that leads is closed. Where a browser has
 * no such locks, or denies them, each window leads for itself.
 */
export function whenLeading(lead: () => void): void {
  if (!('locks' in navigator)) {
    lead()
    return
  }
  navigator.locks
    .request(LEAD, () => {
      lead()
      // Held for as long as the window is open.
      return new Promise<never>(() => {})
    })
    // Denied, as where nothing may be kept.
    .catch(lead)
}

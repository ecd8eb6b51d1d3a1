import { useConfig } from '../config'
import { ChangeListener } from '../services/changeListener'
import { useLogger } from '../utils/logger'

/** The one connection of this process on which the database says that something happened, and who wants to hear of it. */

type Wake = (workshopId: string | undefined) => void
type Live = (payload: string) => void

let wake: Wake = () => {}
let live: Live = () => {}
let listener: Promise<ChangeListener> | undefined

/** Called with the workshop in which something changed; with none, where that may be any. */
export function onWake(hear: Wake): void {
  wake = hear
}

/** Called with what one process told all of them. */
export function onLive(hear: Live): void {
  live = hear
}

export async function listen(): Promise<void> {
  listener ??= (async () => {
    const made = new ChangeListener(useConfig().databaseUrl, {
      onWake: (workshopId) => wake(workshopId),
      onLive: (payload) => live(payload),
      log: useLogger(),
    })
    await made.start()
    return made
  })()
  await listener
}

export async function stopListening(): Promise<void> {
  await (await listener)?.stop()
}

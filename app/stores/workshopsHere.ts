import type { NewWorkshop, WorkshopHere } from '~~/shared/workshops'
import { callApi, type ApiResult } from './api'
import { useKeptByDevice } from './kept'
import { enterWorkshop, workshopHere } from './place'

/** A demo is loaded while one waits. */
const LOAD_MS = 60_000

/** The one for looking round in, as this device last went into it. */
const demoId = useKeptByDevice('nine-ripples.demo', '')
export const isLookingRound = () => workshopHere === demoId.value

export const listWorkshops = () => callApi<WorkshopHere[]>('/api/workshops')

const make = (body: NewWorkshop): Promise<ApiResult<{ id: string }>> =>
  callApi('/api/workshops', { method: 'POST', body, timeout: LOAD_MS })

/** Makes an empty one and goes into it. The id is the caller's, so that asking twice makes one. */
export async function beginWorkshop(id: string): Promise<ApiResult<{ id: string }>> {
  const made = await make({ id })
  if (made.ok) enterWorkshop(made.value.id)
  return made
}

/** Goes into the one for looking round in, which is made where it is not there. */
export async function lookRound(): Promise<ApiResult<{ id: string }>> {
  const made = await make({ demo: true })
  if (made.ok) {
    demoId.value = made.value.id
    enterWorkshop(made.value.id)
  }
  return made
}

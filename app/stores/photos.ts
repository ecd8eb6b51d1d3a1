import { newId } from '~~/shared/newId'
import { useEventListener } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'
import { backOffMs } from '~~/shared/backOff'
import { PHOTO_FULL_PX } from '~~/shared/limits'
import type { Photo } from '~~/shared/photos'
import { callApi, isAway, sendFile, type ApiFailure, type ApiResult } from './api'
import { useBench } from './bench'
import { useCommands } from './commands'
import { scaled, whyNoPhoto } from './photoFile'
import { openPhotoBox, type PhotoOf, type WaitingPhoto } from './photoBox'
import { usePours } from './pours'
import { askToStay } from './room'
import { useWorkshop } from './workshop'

const PHOTO_TIMEOUT_MS = 120_000
const RETRY = { firstMs: 3000, longestMs: 60_000 }

type Waiting = WaitingPhoto & { url: string }

/**
 * Photographs. Of a pour that one was taken is an event like any other; its picture is kept in the browser, scaled, and
 * goes by its id as soon as the workshop answers, after everything else. Until then it is shown from where it waits.
 */
export const usePhotos = defineStore('photos', () => {
  const pours = usePours()
  const workshop = useWorkshop()
  const commands = useCommands()
  const { isReal } = useBench()
  const waiting = shallowRef<ReadonlyMap<string, Waiting>>(new Map())
  let box: ReturnType<typeof openPhotoBox> | undefined
  /** Those that the browser had no room for: they are held by this window and nothing else. */
  const onlyHere = new Set<string>()
  const atRisk = computed(() => [...waiting.value.keys()].some((id) => onlyHere.has(id)))
  useEventListener('beforeunload', (event) => {
    if (atRisk.value) event.preventDefault()
  })

  function hold(photo: WaitingPhoto) {
    if (waiting.value.has(photo.id)) return
    const url = URL.createObjectURL(photo.picture)
    waiting.value = new Map([...waiting.value, [photo.id, { ...photo, url }]])
  }
  function release(id: string) {
    const held = waiting.value.get(id)
    if (held) URL.revokeObjectURL(held.url)
    waiting.value = new Map([...waiting.value].filter(([known]) => known !== id))
  }

  const addressOf = (id: string, size: 'full' | 'thumb' = 'full') =>
    waiting.value.get(id)?.url ?? `/api/photos/${id}?size=${size}`

  /** Of a mould: those that the workshop has, and those on their way. */
  const ofMould = (mouldId: string, known: readonly Photo[]): Photo[] => [
    ...known,
    ...[...waiting.value.values()].filter(
      (w) => 'mould' in w.of && w.of.mould === mouldId && !known.some((p) => p.id === w.id),
    ),
  ]

  /** Keeps a picture. @returns why not, where it is none. */
  async function keep(
    of: PhotoOf,
    file: File,
    caption: string,
  ): Promise<{ ok: true; photo: WaitingPhoto } | { ok: false; failure: ApiFailure }> {
    const failure = whyNoPhoto(file)
    if (failure) return { ok: false, failure }
    const photo = {
      id: newId(),
      of,
      caption,
      ...(await scaled(file, PHOTO_FULL_PX['mould' in of ? 'mould' : 'pour'])),
    }
    try {
      box ??= openPhotoBox()
      if (isReal) {
        await (await box).add(photo)
        askToStay()
      }
    } catch (error) {
      console.error('the browser does not keep photographs', error)
      onlyHere.add(photo.id)
    }
    hold(photo)
    return { ok: true, photo }
  }

  async function sendNow(photo: WaitingPhoto): Promise<ApiResult<string>> {
    const sent = await send(photo)
    if (sent === 'later') retryLater()
    return typeof sent === 'object' ? { ok: false, failure: sent } : { ok: true, value: photo.id }
  }

  /** Keeps a picture of a pour and records that it was taken. */
  async function take(
    pourId: string,
    file: File,
    of: { pieces?: number[] } = {},
  ): Promise<ApiResult<string>> {
    const kept = await keep({ pour: pourId }, file, '')
    if (!kept.ok) return kept
    await pours.record(pourId, { type: 'photographed', photoId: kept.photo.id, caption: '', ...of })
    return sendNow(kept.photo)
  }

  /** Keeps a picture of a mould. @param onKept it is here and can be worked on; sending it takes as long as it takes. */
  async function takeOfMould(
    mouldId: string,
    file: File,
    caption: string,
    onKept?: (photo: Photo) => void,
  ): Promise<ApiResult<string>> {
    const kept = await keep({ mould: mouldId }, file, caption)
    if (!kept.ok) return kept
    onKept?.(kept.photo)
    return sendNow(kept.photo)
  }

  /** What it is of has not reached the workshop yet, or was not taken by it and somebody may still put that right. */
  const isEarly = ({ of }: WaitingPhoto) => {
    const [topic, id] = 'pour' in of ? (['pour', of.pour] as const) : (['mould', of.mould] as const)
    return commands.isWaiting(topic, id) || commands.refused.some((c) => c.topic === topic && c.of === id)
  }

  /** @returns why the server will never take it, where it will not. */
  async function send(photo: WaitingPhoto): Promise<ApiFailure | 'sent' | 'later'> {
    if (isEarly(photo)) return 'later'
    const file = new File([photo.picture], photo.id, { type: photo.picture.type })
    const answer = await sendFile<Photo>('/api/photos', file, {
      query: { id: photo.id, ...photo.of, caption: photo.caption },
      timeoutMs: PHOTO_TIMEOUT_MS,
    })
    if (!answer.ok && (isAway(answer.failure) || ['internal', 'rehearsal'].includes(answer.failure.code)))
      return 'later'
    await box?.then((b) => b.drop(photo.id)).catch(() => undefined)
    if (answer.ok && 'mould' in photo.of)
      workshop.setPhotos(photo.of.mould, (now) => [...now.filter((p) => p.id !== photo.id), answer.value])
    release(photo.id)
    if (answer.ok) return 'sent'
    if ('pour' in photo.of) takeBack(photo.of.pour, photo.id)
    return answer.failure
  }

  function takeBack(pourId: string, photoId: string) {
    const record = pours.records.get(pourId)
    const taken =
      record &&
      pours.factsOf(record)?.live.find(({ body }) => body.type === 'photographed' && body.photoId === photoId)
    if (taken) void pours.record(pourId, { type: 'void', targetId: taken.id })
  }

  async function letGo(photoId: string): Promise<ApiResult<unknown>> {
    const wasWaiting = waiting.value.has(photoId)
    await box?.then((b) => b.drop(photoId)).catch(() => undefined)
    release(photoId)
    const answer = await callApi(`/api/photos/${photoId}`, { method: 'DELETE' })
    return wasWaiting || (!answer.ok && answer.failure.code === 'not_found')
      ? { ok: true, value: {} }
      : answer
  }
  async function remove(pourId: string, photoId: string): Promise<void> {
    takeBack(pourId, photoId)
    await letGo(photoId)
  }
  async function removeOfMould(mouldId: string, photoId: string): Promise<ApiResult<unknown>> {
    const answer = await letGo(photoId)
    if (answer.ok) workshop.setPhotos(mouldId, (now) => now.filter((p) => p.id !== photoId))
    return answer
  }

  let failures = 0
  let retry: ReturnType<typeof setTimeout> | undefined
  function retryLater() {
    failures += 1
    clearTimeout(retry)
    retry = setTimeout(() => void sendWaiting(), backOffMs(failures, RETRY))
  }

  /** What the browser still holds, from this window or another: sent now. */
  let sending: Promise<void> | undefined
  const sendWaiting = () => (sending ??= sendAll().finally(() => (sending = undefined)))
  async function sendAll(): Promise<void> {
    if (!isReal) return
    let wasEarly = false
    for (const photo of await toSend()) {
      hold(photo)
      if (isEarly(photo)) wasEarly = true
      else if ((await send(photo)) === 'later') return retryLater()
      else failures = 0
    }
    if (wasEarly) retryLater()
    else failures = 0
  }
  // What they are of has arrived.
  watch(
    () => commands.waiting.length,
    (now, before) => {
      if (now < before && waiting.value.size > 0) void sendWaiting()
    },
  )
  async function toSend(): Promise<WaitingPhoto[]> {
    const mine = [...waiting.value.values()].filter(({ id }) => onlyHere.has(id))
    try {
      box ??= openPhotoBox()
      return [...(await (await box).all()), ...mine]
    } catch {
      // No such database here.
      box = undefined
      return mine
    }
  }

  return { waiting, atRisk, addressOf, ofMould, take, takeOfMould, remove, removeOfMould, sendWaiting }
})

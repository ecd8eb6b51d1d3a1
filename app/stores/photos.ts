import { newId } from '~~/shared/newId'
import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import { backOffMs } from '~~/shared/backOff'
import type { Photo } from '~~/shared/photos'
import { callApi, isAway, sendFile, type ApiFailure, type ApiResult } from './api'
import { useBench } from './bench'
import { whyNoPhoto } from './photoFile'
import { openPhotoBox, type WaitingPhoto } from './photoBox'
import { usePours } from './pours'

const PHOTO_TIMEOUT_MS = 120_000
const RETRY = { firstMs: 3000, longestMs: 60_000 }

type Waiting = WaitingPhoto & { url: string }

/**
 * Photographs of pours. That one was taken is an event like any other; its picture is kept in the browser and goes by its
 * id as soon as the workshop answers. Until then it is shown from where it waits.
 */
export const usePhotos = defineStore('photos', () => {
  const pours = usePours()
  const { isReal } = useBench()
  const waiting = shallowRef<ReadonlyMap<string, Waiting>>(new Map())
  let box: ReturnType<typeof openPhotoBox> | undefined

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

  /** Keeps a picture and records that it was taken. @returns why not, where it is none. */
  async function take(
    pourId: string,
    picture: File,
    of: { pieces?: number[] } = {},
  ): Promise<ApiResult<string>> {
    const failure = whyNoPhoto(picture)
    if (failure) return { ok: false, failure }
    const photo = { id: newId(), pourId, caption: '', picture }
    try {
      box ??= openPhotoBox()
      if (isReal) await (await box).add(photo)
    } catch (error) {
      console.error('the browser does not keep photographs', error)
    }
    hold(photo)
    await pours.record(pourId, { type: 'photographed', photoId: photo.id, caption: '', ...of })
    const sent = await send(photo)
    if (sent === 'later') retryLater()
    return typeof sent === 'object' ? { ok: false, failure: sent } : { ok: true, value: photo.id }
  }

  /** @returns why the server will never take it, where it will not. */
  async function send(photo: WaitingPhoto): Promise<ApiFailure | 'sent' | 'later'> {
    const file = new File([photo.picture], photo.id, { type: photo.picture.type })
    const answer = await sendFile<Photo>('/api/photos', file, {
      query: { id: photo.id, pour: photo.pourId, caption: photo.caption },
      timeoutMs: PHOTO_TIMEOUT_MS,
    })
    if (!answer.ok && (isAway(answer.failure) || ['internal', 'rehearsal'].includes(answer.failure.code)))
      return 'later'
    await box?.then((b) => b.drop(photo.id)).catch(() => undefined)
    release(photo.id)
    if (answer.ok) return 'sent'
    takeBack(photo.pourId, photo.id)
    return answer.failure
  }

  function takeBack(pourId: string, photoId: string) {
    const record = pours.records.get(pourId)
    const taken =
      record &&
      pours.factsOf(record)?.live.find(({ body }) => body.type === 'photographed' && body.photoId === photoId)
    if (taken) void pours.record(pourId, { type: 'void', targetId: taken.id })
  }

  async function remove(pourId: string, photoId: string): Promise<void> {
    takeBack(pourId, photoId)
    await box?.then((b) => b.drop(photoId)).catch(() => undefined)
    release(photoId)
    await callApi(`/api/photos/${photoId}`, { method: 'DELETE' })
  }

  let failures = 0
  let retry: ReturnType<typeof setTimeout> | undefined
  function retryLater() {
    failures += 1
    clearTimeout(retry)
    retry = setTimeout(() => void sendWaiting(), backOffMs(failures, RETRY))
  }

  /** What the browser still holds, from this window or another: sent now. */
  async function sendWaiting(): Promise<void> {
    if (!isReal) return
    try {
      box ??= openPhotoBox()
      for (const photo of await (await box).all()) {
        hold(photo)
        if ((await send(photo)) === 'later') return retryLater()
      }
      failures = 0
    } catch {
      // No such database here: what this window holds is sent by it alone.
    }
  }

  return { waiting, addressOf, take, remove, sendWaiting }
})

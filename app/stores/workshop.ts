import { defineStore } from 'pinia'
import { ref, shallowRef, watch, type ShallowRef } from 'vue'
import type { ChangeMessage } from '~~/shared/changes'
import type { Settings, SettingsRecord } from '~~/shared/contracts'
import type { ErrorCode } from '~~/shared/errors'
import { isUnreadableCard, type UnreadableCard } from '~~/shared/records'
import type { ImportOutcome, MouldCard, MouldInput, MouldSet, MouldSetInput } from '~~/shared/moulds'
import type { Photo } from '~~/shared/photos'
import type { PlaceCard, PlaceInput } from '~~/shared/learning'
import type {
  BagCard,
  BagInput,
  BowlCard,
  BowlInput,
  PlasterCard,
  PlasterInput,
  Recipe,
  SettlingEntry,
  RecipeInput,
  SpoonTestRecord,
} from '~~/shared/stock'
import type { DeviceChannel } from '#core/pour'
import type { DeviceCard, TareAsk } from '~~/shared/devices'
import { habits } from './habits'
import { whyNoPhoto } from './photoFile'
import { callAllPages, callApi, sendFile, type ApiResult } from './api'

/** Stands in until the workshop's own arrive. */
const FALLBACK: SettingsRecord = {
  revision: 0,
  workshopName: '',
  system: 'metric',
  scaleDivisionG: 1,
  roomTempC: 20,
  roomRhPct: 50,
  airSpeedMS: 0.1,
  tapTempC: 15,
  hotTapTempC: 50,
  scaleCapacityG: null,
  currency: '€',
  decimalSign: null,
  kitchen: null,
}

/** A photo may be large and the line slow; a whole shelf more so. */
const PHOTO_TIMEOUT_MS = 120_000
const SHELF_TIMEOUT_MS = 900_000

type Card = { id: string }
type Broken = 'moulds' | 'stock' | 'recipes'

const byName = (a: { name: string; id: string }, b: { name: string; id: string }) =>
  a.name < b.name ? -1 : a.name > b.name ? 1 : a.id < b.id ? -1 : 1

/**
 * What the workshop owns: settings, plasters, bags, bowls, recipes, moulds. Loaded once; from then on the stream brings
 * what changes, and an answer to a change is put in at once.
 */
export const useWorkshop = defineStore('workshop', () => {
  const settings = shallowRef<SettingsRecord>(FALLBACK)
  watch(settings, (now) => (habits.value = now), { flush: 'sync' })
  const plasters = shallowRef<PlasterCard[]>([])
  const bags = shallowRef<BagCard[]>([])
  const bowls = shallowRef<BowlCard[]>([])
  const recipes = shallowRef<Recipe[]>([])
  const devices = shallowRef<DeviceCard[]>([])
  /** What was done with the settling bucket, the latest first. */
  const settling = shallowRef<SettlingEntry[]>([])
  const places = shallowRef<PlaceCard[]>([])
  const moulds = shallowRef<MouldCard[]>([])
  const mouldSets = shallowRef<MouldSet[]>([])
  /** Cards and recipes that are there and cannot be read: shown as themselves, and everything else goes on. */
  const unreadable = shallowRef<Record<Broken, UnreadableCard[]>>({ moulds: [], stock: [], recipes: [] })
  const stockLoaded = ref(false)
  const stockFailed = ref(false)
  const mouldsLoaded = ref(false)
  const mouldsFailed = ref(false)

  /** One card, new, changed or gone (null), among the others. */
  function put<T extends Card>(
    list: ShallowRef<T[]>,
    id: string,
    card: T | UnreadableCard | null,
    { order, broken }: { order: (a: T, b: T) => number; broken?: Broken },
  ) {
    if (broken) {
      const rest = unreadable.value[broken].filter((c) => c.id !== id)
      const now = card && isUnreadableCard(card) ? [...rest, card] : rest
      if (now.length > 0 || unreadable.value[broken].length > 0)
        unreadable.value = { ...unreadable.value, [broken]: now }
    }
    const known = list.value.some((c) => c.id === id)
    if (!card || isUnreadableCard(card)) {
      if (known) list.value = list.value.filter((c) => c.id !== id)
      return
    }
    const readable = card as T
    const others = known ? list.value.map((c) => (c.id === id ? readable : c)) : [...list.value, readable]
    list.value = others.sort(order)
  }
  const putPlaster = (id: string, card: PlasterCard | UnreadableCard | null) =>
    put(plasters, id, card, { order: byName, broken: 'stock' })
  const putBag = (id: string, card: BagCard | UnreadableCard | null) =>
    put(bags, id, card, { order: (a, b) => Number(a.usedUp) - Number(b.usedUp), broken: 'stock' })
  const putBowl = (id: string, card: BowlCard | null) =>
    put(bowls, id, card, { order: (a, b) => a.volumeMl - b.volumeMl || (a.id < b.id ? -1 : 1) })
  const putRecipe = (id: string, card: Recipe | UnreadableCard | null) =>
    put(recipes, id, card, { order: byName, broken: 'recipes' })
  const putMould = (id: string, card: MouldCard | UnreadableCard | null) =>
    put(moulds, id, card, { order: byName, broken: 'moulds' })
  const putDevice = (id: string, card: DeviceCard | null) => put(devices, id, card, { order: byName })
  const putPlace = (id: string, card: PlaceCard | null) => put(places, id, card, { order: byName })
  const putSettling = (id: string, entry: SettlingEntry | null) =>
    put(settling, id, entry, { order: (a, b) => b.atMs - a.atMs || (a.id < b.id ? -1 : 1) })
  const putSet = (id: string, card: MouldSet | null) => put(mouldSets, id, card, { order: byName })

  /** What the stream brings. */
  function apply(message: Exclude<ChangeMessage, { topic: 'event' | 'pour' }>) {
    switch (message.topic) {
      case 'settings':
        settings.value = message.value
        return
      case 'plaster':
        return putPlaster(message.id, message.value)
      case 'bag':
        return putBag(message.id, message.value)
      case 'bowl':
        return putBowl(message.id, message.value)
      case 'recipe':
        return putRecipe(message.id, message.value)
      case 'mould':
        return putMould(message.id, message.value)
      case 'mould_set':
        return putSet(message.id, message.value)
      case 'device':
        return putDevice(message.id, message.value)
      case 'place':
        return putPlace(message.id, message.value)
      case 'settling':
        return putSettling(message.id, message.value)
    }
  }

  const sorted = <T extends object>(answers: readonly (T | UnreadableCard)[]) => ({
    read: answers.filter((a): a is T => !isUnreadableCard(a)),
    broken: answers.filter((a): a is UnreadableCard => isUnreadableCard(a)),
  })
  async function loadSettings(): Promise<boolean> {
    const answer = await callApi<SettingsRecord>('/api/settings')
    if (answer.ok) settings.value = answer.value
    return answer.ok
  }
  /** Plaster cards and their bags: neither is any use without the other. */
  async function loadStock(): Promise<boolean> {
    const [cards, found] = await Promise.all([
      callAllPages<PlasterCard | UnreadableCard>('/api/plasters'),
      callAllPages<BagCard | UnreadableCard>('/api/bags'),
    ])
    stockFailed.value = !cards.ok || !found.ok
    if (!cards.ok || !found.ok) return false
    const [ofCards, ofBags] = [sorted<PlasterCard>(cards.value), sorted<BagCard>(found.value)]
    plasters.value = ofCards.read
    bags.value = ofBags.read
    unreadable.value = { ...unreadable.value, stock: [...ofCards.broken, ...ofBags.broken] }
    stockLoaded.value = true
    return true
  }
  async function loadBowls(): Promise<boolean> {
    const answer = await callApi<BowlCard[]>('/api/bowls')
    if (answer.ok) bowls.value = answer.value
    return answer.ok
  }
  async function loadPlaces(): Promise<boolean> {
    const answer = await callApi<PlaceCard[]>('/api/places')
    if (answer.ok) places.value = answer.value
    return answer.ok
  }
  async function loadDevices(): Promise<boolean> {
    const answer = await callApi<DeviceCard[]>('/api/devices')
    if (answer.ok) devices.value = answer.value
    return answer.ok
  }
  async function loadSettling(): Promise<boolean> {
    const answer = await callApi<SettlingEntry[]>('/api/settling')
    if (answer.ok) settling.value = answer.value
    return answer.ok
  }
  async function loadRecipes(): Promise<boolean> {
    const answer = await callApi<(Recipe | UnreadableCard)[]>('/api/recipes')
    if (!answer.ok) return false
    const { read, broken } = sorted<Recipe>(answer.value)
    recipes.value = read
    unreadable.value = { ...unreadable.value, recipes: broken }
    return true
  }
  async function loadMoulds(): Promise<boolean> {
    const [cards, sets] = await Promise.all([
      callAllPages<MouldCard | UnreadableCard>('/api/moulds'),
      callApi<MouldSet[]>('/api/mould-sets'),
    ])
    mouldsFailed.value = !cards.ok
    if (!cards.ok) return false
    const { read, broken } = sorted<MouldCard>(cards.value)
    moulds.value = read
    unreadable.value = { ...unreadable.value, moulds: broken }
    if (sets.ok) mouldSets.value = sets.value
    mouldsLoaded.value = true
    return sets.ok
  }

  let wasLoaded!: () => void
  /** Resolves when everything has been asked for once, whether or not it could be had. */
  const ready = new Promise<void>((resolve) => (wasLoaded = resolve))
  /** @returns whether all of it could be had. */
  async function load(): Promise<boolean> {
    const had = await Promise.all([
      loadSettings(),
      loadStock(),
      loadBowls(),
      loadRecipes(),
      loadDevices(),
      loadPlaces(),
      loadSettling(),
      loadMoulds(),
    ])
    wasLoaded()
    return had.every(Boolean)
  }

  /** Sends a change; what came of it is put in at once, the answer or what was there instead. */
  async function change<T extends Card>(
    path: string,
    options: { method: 'PUT' | 'POST'; body: object },
    putIn: (id: string, card: T) => void,
  ): Promise<ApiResult<T>> {
    const answer = await callApi<T>(path, options)
    const now = answer.ok ? answer.value : (answer.failure.current as T | undefined)
    if (now) putIn(now.id, now)
    return answer
  }
  async function drop(path: string, putOut: () => void): Promise<ApiResult<unknown>> {
    const answer = await callApi(path, { method: 'DELETE' })
    const gone: ErrorCode = 'not_found'
    if (answer.ok || answer.failure.code === gone) putOut()
    return answer
  }

  /** @param revision what the caller saw. */
  async function saveSettings(revision: number, next: Settings) {
    const answer = await callApi<SettingsRecord>('/api/settings', {
      method: 'PUT',
      body: { revision, settings: next },
    })
    const now = answer.ok ? answer.value : (answer.failure.current as SettingsRecord | undefined)
    if (now) settings.value = now
    return answer
  }
  /** @param revision what the caller saw; null for a new one. */
  const savePlaster = (id: string, revision: number | null, plaster: PlasterInput) =>
    change<PlasterCard>(`/api/plasters/${id}`, { method: 'PUT', body: { revision, plaster } }, putPlaster)
  const deletePlaster = (id: string) => drop(`/api/plasters/${id}`, () => putPlaster(id, null))
  const saveBag = (id: string, revision: number | null, bag: BagInput) =>
    change<BagCard>(`/api/bags/${id}`, { method: 'PUT', body: { revision, bag } }, putBag)
  const deleteBag = (id: string) => drop(`/api/bags/${id}`, () => putBag(id, null))
  const addSpoonTest = (bagId: string, test: SpoonTestRecord) =>
    change<BagCard>(`/api/bags/${bagId}/spoon-tests`, { method: 'POST', body: test }, putBag)
  async function deleteSpoonTest(id: string) {
    return drop(`/api/spoon-tests/${id}`, () => {
      const bag = bags.value.find((b) => b.spoonTests.some((t) => t.id === id))
      if (bag) putBag(bag.id, { ...bag, spoonTests: bag.spoonTests.filter((t) => t.id !== id) })
    })
  }
  const saveBowl = (id: string, revision: number | null, bowl: BowlInput) =>
    change<BowlCard>(`/api/bowls/${id}`, { method: 'PUT', body: { revision, bowl } }, putBowl)
  const deleteBowl = (id: string) => drop(`/api/bowls/${id}`, () => putBowl(id, null))
  const savePlace = (id: string, revision: number | null, place: PlaceInput) =>
    change<PlaceCard>(`/api/places/${id}`, { method: 'PUT', body: { revision, place } }, putPlace)
  const deletePlace = (id: string) => drop(`/api/places/${id}`, () => putPlace(id, null))
  const saveRecipe = (id: string, revision: number | null, recipe: RecipeInput) =>
    change<Recipe>(`/api/recipes/${id}`, { method: 'PUT', body: { revision, recipe } }, putRecipe)
  const putDeviceTo = (id: string, channel: DeviceChannel, to: { pourId: string; batch: number } | null) =>
    change<DeviceCard>(
      `/api/devices/${encodeURIComponent(id)}/use`,
      { method: 'PUT', body: { channel, to } },
      putDevice,
    )
  const tareDevice = (id: string, ask: TareAsk) =>
    callApi(`/api/devices/${encodeURIComponent(id)}/tare`, { method: 'POST', body: ask })
  const tellSettling = (body: SettlingEntry) =>
    change<SettlingEntry>('/api/settling', { method: 'POST', body }, putSettling)
  const dropSettling = (id: string) => drop(`/api/settling/${id}`, () => putSettling(id, null))
  const deleteRecipe = (id: string) => drop(`/api/recipes/${id}`, () => putRecipe(id, null))
  const saveMould = (id: string, revision: number | null, mould: MouldInput) =>
    change<MouldCard>(`/api/moulds/${id}`, { method: 'PUT', body: { revision, mould } }, putMould)
  const deleteMould = (id: string) => drop(`/api/moulds/${id}`, () => putMould(id, null))
  const saveMouldSet = (id: string, revision: number | null, set: MouldSetInput) =>
    change<MouldSet>(`/api/mould-sets/${id}`, { method: 'PUT', body: { revision, set } }, putSet)
  const deleteMouldSet = (id: string) => drop(`/api/mould-sets/${id}`, () => putSet(id, null))

  function setPhotos(mouldId: string, photosOf: (now: Photo[]) => Photo[]) {
    const card = moulds.value.find((m) => m.id === mouldId)
    if (card) putMould(mouldId, { ...card, photos: photosOf(card.photos) })
  }
  /** @param id made by the caller: sent twice it is one photo. */
  async function addPhoto(
    mouldId: string,
    id: string,
    file: File,
    caption: string,
  ): Promise<ApiResult<Photo>> {
    const failure = whyNoPhoto(file)
    if (failure) return { ok: false, failure }
    const answer = await sendFile<Photo>('/api/photos', file, {
      query: { id, caption, mould: mouldId },
      timeoutMs: PHOTO_TIMEOUT_MS,
    })
    if (answer.ok) setPhotos(mouldId, (now) => [...now.filter((p) => p.id !== id), answer.value])
    return answer
  }
  async function deletePhoto(mouldId: string, id: string) {
    return drop(`/api/photos/${id}`, () => setPhotos(mouldId, (now) => now.filter((p) => p.id !== id)))
  }
  /** The file goes as it is: it may be far larger than what a page should hold. */
  async function importMoulds(file: File) {
    const answer = await sendFile<ImportOutcome>('/api/moulds/import', file, {
      type: 'application/json',
      timeoutMs: SHELF_TIMEOUT_MS,
    })
    // What came before a fault is on the shelf.
    await loadMoulds()
    return answer
  }

  return {
    settings,
    plasters,
    bags,
    bowls,
    places,
    recipes,
    devices,
    putDeviceTo,
    settling,
    tellSettling,
    dropSettling,
    tareDevice,
    unreadable,
    stockLoaded,
    stockFailed,
    moulds,
    mouldSets,
    mouldsLoaded,
    mouldsFailed,
    ready,
    load,
    loadStock,
    loadMoulds,
    apply,
    saveSettings,
    saveMould,
    deleteMould,
    saveMouldSet,
    deleteMouldSet,
    addPhoto,
    deletePhoto,
    importMoulds,
    savePlaster,
    deletePlaster,
    saveBag,
    deleteBag,
    addSpoonTest,
    deleteSpoonTest,
    savePlace,
    deletePlace,
    saveBowl,
    deleteBowl,
    saveRecipe,
    deleteRecipe,
  }
})

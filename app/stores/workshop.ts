import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import type { ChangeMessage } from '~~/shared/changes'
import type { Settings, SettingsRecord } from '~~/shared/contracts'
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
import { callApi, sendFile } from './api'
import { cardList, dropped } from './cardList'

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
  scoopMl: null,
}

/** A whole shelf may be large and the line slow. */
const SHELF_TIMEOUT_MS = 900_000

const byName = (a: { name: string; id: string }, b: { name: string; id: string }) =>
  a.name < b.name ? -1 : a.name > b.name ? 1 : byId(a, b)
const byId = (a: { id: string }, b: { id: string }) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)

/** A card that says what was typed and nothing else. */
const asSaid = <Input, Head>(input: Input, head: Head): Input & Head => ({ ...input, ...head })

/** What is left of a bag is what was last weighed or bought, until its pours are counted again. */
const bagMeanwhile = (input: BagInput, head: { id: string; revision: number }, known?: BagCard): BagCard => {
  const sameCount = known && known.counted?.atMs === input.counted?.atMs
  const leftG = sameCount ? known.leftG : (input.counted?.leftG ?? input.boughtG)
  return { pours: 0, spoonTests: [], ...known, ...input, ...head, leftG }
}

/** What follows from a description is worked out by code that the bench can do without. */
const mouldMeanwhile = async (input: MouldInput, head: { id: string; revision: number }, known?: MouldCard) =>
  (await import('./mouldMeanwhile')).mouldMeanwhile(input, head, known)

/**
 * What the workshop owns: settings, plasters, bags, bowls, recipes, moulds. Loaded once; from then on the stream brings
 * what changes, and an answer to a change is put in at once.
 */
export const useWorkshop = defineStore('workshop', () => {
  const settings = shallowRef<SettingsRecord>(FALLBACK)
  watch(settings, (now) => (habits.value = now), { flush: 'sync' })
  const lists = {
    plaster: cardList<PlasterCard, PlasterInput>({
      meanwhile: asSaid,
      path: '/api/plasters',
      as: 'plaster',
      order: byName,
      paged: true,
    }),
    bag: cardList<BagCard, BagInput>({
      meanwhile: bagMeanwhile,
      path: '/api/bags',
      as: 'bag',
      order: (a, b) => Number(a.usedUp) - Number(b.usedUp),
      paged: true,
    }),
    bowl: cardList<BowlCard, BowlInput>({
      meanwhile: asSaid,
      path: '/api/bowls',
      as: 'bowl',
      order: (a, b) => a.volumeMl - b.volumeMl || byId(a, b),
    }),
    recipe: cardList<Recipe, RecipeInput>({
      path: '/api/recipes',
      as: 'recipe',
      order: byName,
      meanwhile: asSaid,
    }),
    mould: cardList<MouldCard, MouldInput>({
      meanwhile: mouldMeanwhile,
      path: '/api/moulds',
      as: 'mould',
      order: byName,
      paged: true,
    }),
    mould_set: cardList<MouldSet, MouldSetInput>({
      path: '/api/mould-sets',
      as: 'set',
      order: byName,
      meanwhile: asSaid,
    }),
    device: cardList<DeviceCard>({ path: '/api/devices', as: 'device', order: byName }),
    place: cardList<PlaceCard, PlaceInput>({
      path: '/api/places',
      as: 'place',
      order: byName,
      meanwhile: asSaid,
    }),
    /** What was done with the settling bucket, the latest first. */
    settling: cardList<SettlingEntry>({
      path: '/api/settling',
      as: 'settling',
      order: (a, b) => b.atMs - a.atMs || byId(a, b),
    }),
  }
  type ListName = keyof typeof lists
  const { plaster, bag, bowl, recipe, mould, mould_set: mouldSet, device, place, settling } = lists
  /** Cards that are there and cannot be read, by where they are shown. */
  const unreadable = computed(() => ({
    moulds: mould.unreadable.value,
    stock: [...plaster.unreadable.value, ...bag.unreadable.value],
    recipes: recipe.unreadable.value,
  }))
  const stockLoaded = ref(false)
  const stockFailed = ref(false)
  const mouldsLoaded = ref(false)
  const mouldsFailed = ref(false)

  /** What the stream brings. */
  function apply(message: Exclude<ChangeMessage, { topic: 'event' | 'pour' | 'person' }>) {
    if (message.topic === 'settings') settings.value = message.value
    else (lists[message.topic].follow as (id: string, card: unknown) => void)(message.id, message.value)
  }

  async function loadSettings(): Promise<boolean> {
    const answer = await callApi<SettingsRecord>('/api/settings')
    if (answer.ok) settings.value = answer.value
    return answer.ok
  }
  /** Plaster cards and their bags: neither is any use without the other. */
  async function loadStock(): Promise<boolean> {
    const [cards, found] = await Promise.all([plaster.ask(), bag.ask()])
    stockFailed.value = !cards || !found
    if (!cards || !found) return false
    cards()
    found()
    stockLoaded.value = true
    return true
  }
  async function loadMoulds(): Promise<boolean> {
    const [cards, sets] = await Promise.all([mould.ask(), mouldSet.load()])
    mouldsFailed.value = !cards
    if (!cards) return false
    cards()
    mouldsLoaded.value = true
    return sets
  }

  let wasLoaded!: () => void
  /** Resolves when everything has been asked for once, whether or not it could be had. */
  const ready = new Promise<void>((resolve) => (wasLoaded = resolve))
  /** What this device keeps of it, where the workshop has not answered yet: whatever was had stays. */
  function fill(
    kept: { settings?: SettingsRecord } & Partial<Record<ListName, readonly { id: string }[]>>,
  ): void {
    if (kept.settings && settings.value.revision === 0) settings.value = kept.settings
    for (const [name, list] of Object.entries(lists))
      (list.fill as (cards: readonly { id: string }[]) => void)(kept[name as ListName] ?? [])
    stockLoaded.value = true
    mouldsLoaded.value = true
    wasLoaded()
  }
  /** @returns whether all of it could be had. */
  async function load(): Promise<boolean> {
    const had = await Promise.all([
      loadSettings(),
      loadStock(),
      loadMoulds(),
      ...[bowl, recipe, device, place, settling].map((list) => list.load()),
    ])
    wasLoaded()
    return had.every(Boolean)
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
  /** What a caster has said once of the workshop itself, kept with the rest of its settings. */
  function rememberSettings(change: Partial<Settings>) {
    const { revision, ...now } = settings.value
    return saveSettings(revision, { ...now, ...change })
  }
  const addSpoonTest = (bagId: string, test: SpoonTestRecord) =>
    bag.change(`/api/bags/${bagId}/spoon-tests`, { method: 'POST', body: test })
  const deleteSpoonTest = (id: string) =>
    dropped(`/api/spoon-tests/${id}`, () => {
      const of = bag.cards.value.find((b) => b.spoonTests.some((t) => t.id === id))
      if (of) bag.put(of.id, { ...of, spoonTests: of.spoonTests.filter((t) => t.id !== id) })
    })
  const putDeviceTo = (id: string, channel: DeviceChannel, to: { pourId: string; batch: number } | null) =>
    device.change(`/api/devices/${encodeURIComponent(id)}/use`, { method: 'PUT', body: { channel, to } })
  const tareDevice = (id: string, ask: TareAsk) =>
    callApi(`/api/devices/${encodeURIComponent(id)}/tare`, { method: 'POST', body: ask })
  const tellSettling = (body: SettlingEntry) => settling.change('/api/settling', { method: 'POST', body })

  function setPhotos(mouldId: string, photosOf: (now: Photo[]) => Photo[]) {
    const card = mould.cards.value.find((m) => m.id === mouldId)
    if (card) mould.put(mouldId, { ...card, photos: photosOf(card.photos) })
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
    plasters: plaster.cards,
    bags: bag.cards,
    bowls: bowl.cards,
    places: place.cards,
    recipes: recipe.cards,
    devices: device.cards,
    settling: settling.cards,
    moulds: mould.cards,
    mouldSets: mouldSet.cards,
    unreadable,
    stockLoaded,
    stockFailed,
    mouldsLoaded,
    mouldsFailed,
    ready,
    listNames: Object.keys(lists) as ListName[],
    cardsOf: (name: ListName): readonly { id: string }[] => lists[name].cards.value,
    isHad: (name: ListName): boolean => lists[name].had.value,
    isAnswered: computed(() => settings.value.revision > 0),
    load,
    fill,
    loadStock,
    loadMoulds,
    apply,
    saveSettings,
    rememberSettings,
    savePlaster: plaster.save,
    deletePlaster: plaster.drop,
    saveBag: bag.save,
    deleteBag: bag.drop,
    addSpoonTest,
    deleteSpoonTest,
    saveBowl: bowl.save,
    deleteBowl: bowl.drop,
    savePlace: place.save,
    deletePlace: place.drop,
    saveRecipe: recipe.save,
    deleteRecipe: recipe.drop,
    saveMould: mould.save,
    deleteMould: mould.drop,
    saveMouldSet: mouldSet.save,
    deleteMouldSet: mouldSet.drop,
    setPhotos,
    importMoulds,
    putDeviceTo,
    tareDevice,
    tellSettling,
    dropSettling: settling.drop,
  }
})

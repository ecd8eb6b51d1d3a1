import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { Settings } from '~~/shared/contracts'
import { isUnreadableCard, type UnreadableCard } from '~~/shared/records'
import type {
  ImportOutcome,
  MouldCard,
  MouldInput,
  MouldPhoto,
  MouldSet,
  MouldSetInput,
} from '~~/shared/moulds'
import type {
  BagCard,
  BagInput,
  BowlCard,
  BowlInput,
  PlasterCard,
  PlasterInput,
  Recipe,
  RecipeInput,
  SpoonTestRecord,
} from '~~/shared/stock'
import { callAllPages, callApi, sendPicture } from '~/composables/useApi'

/** Stands in until the workshop's own arrive. */
const FALLBACK: Settings = {
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

/** What the workshop owns: settings, plasters, moulds. */
export const useWorkshop = defineStore('workshop', () => {
  const settings = ref<Settings>(FALLBACK)
  const plasters = shallowRef<PlasterCard[]>([])
  const bags = shallowRef<BagCard[]>([])
  const bowls = shallowRef<BowlCard[]>([])
  const recipes = shallowRef<Recipe[]>([])
  /** Cards and recipes that are there and cannot be read: shown as themselves, and everything else goes on. */
  const unreadable = shallowRef<Record<'moulds' | 'stock' | 'recipes', UnreadableCard[]>>({
    moulds: [],
    stock: [],
    recipes: [],
  })
  const sorted = <T extends object>(answers: readonly (T | UnreadableCard)[]) => ({
    read: answers.filter((a): a is T => !isUnreadableCard(a)),
    broken: answers.filter((a): a is UnreadableCard => isUnreadableCard(a)),
  })
  const stockLoaded = ref(false)
  const stockFailed = ref(false)
  const moulds = shallowRef<MouldCard[]>([])
  const mouldSets = shallowRef<MouldSet[]>([])
  const mouldsLoaded = ref(false)
  const mouldsFailed = ref(false)

  async function loadSettings() {
    const answer = await callApi<Settings>('/api/settings')
    if (answer.ok) settings.value = answer.value
  }
  /** Plaster cards and their bags: neither is any use without the other. */
  async function loadStock() {
    const [cards, found] = await Promise.all([
      callAllPages<PlasterCard | UnreadableCard>('/api/plasters'),
      callAllPages<BagCard | UnreadableCard>('/api/bags'),
    ])
    stockFailed.value = !cards.ok || !found.ok
    if (!cards.ok || !found.ok) return
    const [ofCards, ofBags] = [sorted<PlasterCard>(cards.value), sorted<BagCard>(found.value)]
    plasters.value = ofCards.read
    bags.value = ofBags.read
    unreadable.value = { ...unreadable.value, stock: [...ofCards.broken, ...ofBags.broken] }
    stockLoaded.value = true
  }
  async function loadBowls() {
    const answer = await callApi<BowlCard[]>('/api/bowls')
    if (answer.ok) bowls.value = answer.value
  }
  async function loadRecipes() {
    const answer = await callApi<(Recipe | UnreadableCard)[]>('/api/recipes')
    if (!answer.ok) return
    const { read, broken } = sorted<Recipe>(answer.value)
    recipes.value = read
    unreadable.value = { ...unreadable.value, recipes: broken }
  }
  async function loadMoulds() {
    const [cards, sets] = await Promise.all([
      callAllPages<MouldCard | UnreadableCard>('/api/moulds'),
      callApi<MouldSet[]>('/api/mould-sets'),
    ])
    mouldsFailed.value = !cards.ok
    if (!cards.ok) return
    const { read, broken } = sorted<MouldCard>(cards.value)
    moulds.value = read
    unreadable.value = { ...unreadable.value, moulds: broken }
    if (sets.ok) mouldSets.value = sets.value
    mouldsLoaded.value = true
  }
  async function load() {
    await Promise.all([loadSettings(), loadStock(), loadBowls(), loadRecipes(), loadMoulds()])
  }
  async function saveSettings(next: Settings) {
    const answer = await callApi<Settings>('/api/settings', { method: 'PUT', body: next })
    if (answer.ok) settings.value = answer.value
    return answer
  }

  /** Puts a new mould on the shelf, or changes the one with this id that the caller saw. */
  async function saveMould(id: string, mould: MouldInput, seenRevision: number | undefined) {
    const answer =
      seenRevision === undefined
        ? await callApi<MouldCard>('/api/moulds', { method: 'POST', body: { id, mould } })
        : await callApi<MouldCard>(`/api/moulds/${id}`, {
            method: 'PUT',
            body: { revision: seenRevision, mould },
          })
    if (answer.ok) await loadMoulds()
    return answer
  }
  async function deleteMould(id: string) {
    const answer = await callApi(`/api/moulds/${id}`, { method: 'DELETE' })
    if (answer.ok) await loadMoulds()
    return answer
  }
  async function saveMouldSet(id: string, set: MouldSetInput) {
    const answer = await callApi<MouldSet>(`/api/mould-sets/${id}`, { method: 'PUT', body: set })
    if (answer.ok) await loadMoulds()
    return answer
  }
  async function deleteMouldSet(id: string) {
    const answer = await callApi(`/api/mould-sets/${id}`, { method: 'DELETE' })
    if (answer.ok) await loadMoulds()
    return answer
  }
  async function addPhoto(mouldId: string, file: File, caption: string) {
    const answer = await sendPicture<MouldPhoto>(`/api/moulds/${mouldId}/photos`, file, { caption })
    if (answer.ok) await loadMoulds()
    return answer
  }
  async function deletePhoto(id: string) {
    const answer = await callApi(`/api/photos/${id}`, { method: 'DELETE' })
    if (answer.ok) await loadMoulds()
    return answer
  }
  async function importMoulds(bundle: object) {
    const answer = await callApi<ImportOutcome>('/api/moulds/import', { method: 'POST', body: bundle })
    if (answer.ok) await loadMoulds()
    return answer
  }

  /** Sends it and fetches what follows from it. */
  async function change<T>(
    path: string,
    options: { method: 'PUT' | 'POST' | 'DELETE'; body?: object },
    reload: () => Promise<void>,
  ) {
    const answer = await callApi<T>(path, options)
    if (answer.ok) await reload()
    return answer
  }
  /** @param revision what the caller saw; null for a new card. */
  const savePlaster = (id: string, revision: number | null, plaster: PlasterInput) =>
    change<PlasterCard>(`/api/plasters/${id}`, { method: 'PUT', body: { revision, plaster } }, loadStock)
  const deletePlaster = (id: string) => change(`/api/plasters/${id}`, { method: 'DELETE' }, loadStock)
  const saveBag = (id: string, revision: number | null, bag: BagInput) =>
    change<BagCard>(`/api/bags/${id}`, { method: 'PUT', body: { revision, bag } }, loadStock)
  const deleteBag = (id: string) => change(`/api/bags/${id}`, { method: 'DELETE' }, loadStock)
  const addSpoonTest = (bagId: string, test: SpoonTestRecord) =>
    change<BagCard>(`/api/bags/${bagId}/spoon-tests`, { method: 'POST', body: test }, loadStock)
  const deleteSpoonTest = (id: string) => change(`/api/spoon-tests/${id}`, { method: 'DELETE' }, loadStock)
  const saveBowl = (id: string, bowl: BowlInput) =>
    change<BowlCard>(`/api/bowls/${id}`, { method: 'PUT', body: bowl }, loadBowls)
  const deleteBowl = (id: string) => change(`/api/bowls/${id}`, { method: 'DELETE' }, loadBowls)
  const saveRecipe = (id: string, recipe: RecipeInput) =>
    change<Recipe>(`/api/recipes/${id}`, { method: 'PUT', body: recipe }, loadRecipes)
  const deleteRecipe = (id: string) => change(`/api/recipes/${id}`, { method: 'DELETE' }, loadRecipes)

  return {
    settings,
    plasters,
    bags,
    bowls,
    recipes,
    unreadable,
    stockLoaded,
    stockFailed,
    moulds,
    mouldSets,
    mouldsLoaded,
    mouldsFailed,
    load,
    loadSettings,
    loadStock,
    loadBowls,
    loadRecipes,
    loadMoulds,
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
    saveBowl,
    deleteBowl,
    saveRecipe,
    deleteRecipe,
  }
})

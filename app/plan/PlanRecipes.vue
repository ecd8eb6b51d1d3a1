<script setup lang="ts">
/**
 * Plans kept under a name: start from one, on the mould in hand; set one beside this plan; hand one on.
 * Usage: <PlanRecipes :draft :plan :now-ms @use="useRecipe" />
 */
import { newId as makeId } from '~~/shared/newId'
import { Download, RotateCcwClock, Printer, Trash, Upload } from '@lucide/vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref, useId, useTemplateRef } from 'vue'
import { evaluatePlan, type PourPlan } from '#core/pour'
import type { Recipe, RecipeFile, RecipeInput } from '~~/shared/stock'
import { useConflict } from '~/parts/form/useConflict'
import { useUnits } from '~/parts/show/useUnits'
import { useWorkshop } from '~/stores/workshop'
import { recipeLines } from '~/parts/form/cardLines'
import { comparePlans } from '~/parts/mix/planComparison'
import { mixDraft } from './draft/fromPlan'
import { planOf } from './draft/toPlan'
import { type PlanDraft } from './draft/planDraft'
import { saveFile } from '~/parts/show/saveFile'
import { failureWords } from '~/parts/words/errors'

const props = defineProps<{ draft: PlanDraft; plan: PourPlan | undefined; nowMs: number }>()
const emit = defineEmits<{ use: [recipe: Recipe]; follow: [recipe: PlanDraft['recipe']] }>()
const workshop = useWorkshop()
const units = useUnits()
const id = useId()

const name = ref('')
const said = ref('')
const failure = ref('')
/** Two of one name would not be told apart: which one is meant is asked. */
const namesake = computed(() => {
  const typed = name.value.trim()
  return workshop.recipes.find((r) => r.name === typed)
})
const newId = ref(makeId())
/** What is on its way or was not taken: a recipe of the plan as it was when it was kept. */
const mine = ref<{ id: string; recipe: RecipeInput }>()
const seen = ref<number | null>(null)
const {
  theirs,
  meets,
  clear: clearConflict,
  keepMine,
} = useConflict<Recipe>({ seen, keep: put, show: () => {} })
async function keep(inPlaceOf: Recipe | undefined) {
  if (!props.plan || name.value.trim() === '') return
  // It is one itself now, whichever it was begun from.
  const { recipe: _, ...plan } = props.plan
  const recipe = { name: name.value.trim(), plan }
  seen.value = inPlaceOf?.revision ?? null
  const recipeId = inPlaceOf?.id ?? newId.value
  mine.value = { id: recipeId, recipe: recipe as RecipeInput }
  if (await put()) emit('follow', { recipeId, name: recipe.name })
}
/** @returns whether it was taken. */
async function put(): Promise<boolean> {
  const { id: recipeId, recipe } = mine.value!
  said.value = failure.value = ''
  clearConflict()
  const answer = await workshop.saveRecipe(recipeId, seen.value, recipe)
  if (!answer.ok) {
    if (!meets(answer.failure)) failure.value = failureWords(answer.failure)
  } else {
    said.value =
      seen.value === null ? `${recipe.name} is kept.` : `${recipe.name} is kept in place of the old one.`
    name.value = ''
    newId.value = makeId()
  }
  return answer.ok
}
async function drop(recipe: Recipe) {
  const answer = await workshop.deleteRecipe(recipe.id)
  said.value = answer.ok ? `${recipe.name} is gone.` : ''
  if (!answer.ok) failure.value = failureWords(answer.failure)
}

function use(recipe: Recipe) {
  emit('use', recipe)
  said.value = `${recipe.name}, for this mould.`
}
const besideId = ref('')
const beside = computed(() => {
  const recipe = workshop.recipes.find((r) => r.id === besideId.value)
  if (!recipe || !props.plan) return undefined
  const scaled = planOf({ ...props.draft, ...mixDraft(recipe.plan, workshop) }, workshop, props.nowMs)
  if (!scaled) return undefined
  const plans = [props.plan, scaled].map((plan) => ({ plan, evaluation: evaluatePlan(plan) }))
  return { name: recipe.name, rows: comparePlans(plans, units) }
})

const fileInput = useTemplateRef('fileInput')
function handOn(recipe: Recipe) {
  const file: RecipeFile = {
    format: 'nine-ripples.recipe',
    version: 1,
    name: recipe.name,
    plan: recipe.plan as RecipeFile['plan'],
  }
  saveFile(`${recipe.name}.json`, 'application/json', `${JSON.stringify(file, null, 2)}\n`)
}
/** A file never overwrites what is kept. */
function freeName(wanted: string): string {
  const taken = new Set(workshop.recipes.map((r) => r.name))
  let free = wanted
  for (let n = 2; taken.has(free); n++) free = `${wanted} (${n})`
  return free
}
async function takeIn() {
  const file = fileInput.value?.files?.[0]
  if (!file) return
  said.value = failure.value = ''
  try {
    const read = JSON.parse(await file.text()) as Partial<RecipeFile>
    if (read.format === 'nine-ripples.recipe' && read.version === 1 && read.name && read.plan) {
      seen.value = null
      mine.value = { id: makeId(), recipe: { name: freeName(read.name), plan: read.plan } }
      await put()
    } else failure.value = 'This file is not a recipe.'
  } catch {
    failure.value = 'This file cannot be read: it is not JSON.'
  }
  fileInput.value!.value = ''
}
</script>

<template>
  <section class="slab" aria-label="Recipes">
    <p v-if="workshop.recipes.length === 0" class="soft">None kept yet.</p>
    <UnreadableCards :cards="workshop.unreadable.recipes" />
    <p v-if="draft.recipe">
      This plan follows <b>{{ draft.recipe.name }}</b>.
      <Button severity="secondary" label="It does not any more" @click="emit('follow', null)" />
    </p>
    <ul v-if="workshop.recipes.length > 0">
      <li v-for="r in workshop.recipes" :key="r.id">
        <span>
          <b>{{ r.name }}</b>
          <small class="soft">{{ r.plan.plaster.name }}, {{ Math.round(r.plan.consistency) }} to 100</small>
        </span>
        <span class="acts">
          <Button label="Use it here" :aria-label="`Use it here: ${r.name}`" @click="use(r)" />
          <Button
            severity="secondary"
            :label="besideId === r.id ? 'Put away' : 'Compare'"
            :aria-label="`${besideId === r.id ? 'Put away' : 'Compare'}: ${r.name}`"
            @click="besideId = besideId === r.id ? '' : r.id"
          />
          <NuxtLink
            :to="{ path: '/casts', query: { tags: `recipe:${r.id}` } }"
            class="icon-button"
            :aria-label="`What came of ${r.name}`"
            ><RotateCcwClock :size="20" aria-hidden="true"
          /></NuxtLink>
          <NuxtLink :to="`/recipes/${r.id}`" class="icon-button" :aria-label="`Card of ${r.name}, to print`"
            ><Printer :size="20" aria-hidden="true"
          /></NuxtLink>
          <button type="button" class="icon-button" :aria-label="`${r.name} as a file`" @click="handOn(r)">
            <Download :size="20" aria-hidden="true" />
          </button>
          <button type="button" class="icon-button" :aria-label="`Throw ${r.name} away`" @click="drop(r)">
            <Trash :size="20" aria-hidden="true" />
          </button>
        </span>
      </li>
    </ul>
    <table v-if="beside" data-testid="beside">
      <thead>
        <tr>
          <th scope="col"><span class="visually-hidden">What</span></th>
          <th scope="col">This plan</th>
          <th scope="col">{{ beside.name }}, on this mould</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in beside.rows" :key="row.what" :class="{ differs: row.differs }">
          <th scope="row">{{ row.what }}</th>
          <td v-for="(value, i) in row.values" :key="i">{{ value }}</td>
        </tr>
      </tbody>
    </table>
    <div class="keep">
      <label :for="`${id}-name`"
        >Keep this plan as
        <InputText :id="`${id}-name`" v-model="name" maxlength="120" placeholder="a name" autocomplete="off"
      /></label>
      <Button
        label="Keep the recipe"
        severity="secondary"
        type="button"
        :disabled="name.trim() === '' || !plan || !!namesake"
        @click="keep(undefined)"
      />
      <Button severity="secondary" type="button" @click="fileInput?.click()">
        <Upload :size="18" aria-hidden="true" /> From a file
      </Button>
      <input
        ref="fileInput"
        type="file"
        accept=".json,application/json"
        aria-label="Recipe file"
        class="visually-hidden"
        tabindex="-1"
        @change="takeIn"
      />
    </div>
    <p v-if="namesake" class="note namesake">
      There is a recipe of this name.
      <Button label="Keep this in its place" severity="secondary" :disabled="!plan" @click="keep(namesake)" />
      or choose another name.
    </p>
    <p v-if="said" role="status" class="said">{{ said }}</p>
    <p v-if="failure" role="alert" class="failure">{{ failure }}</p>
    <ConflictNote
      v-if="theirs && mine"
      :mine="recipeLines(mine.recipe, units)"
      :theirs="recipeLines(theirs, units)"
      @mine="keepMine"
      @theirs="clearConflict"
    />
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: var(--s2);
  padding: var(--s2) 0;
  border-top: 1px solid var(--line);
}
li small {
  display: block;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s1);
  align-items: center;
}
.keep {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3);
  align-items: end;
}
.keep label {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
  flex: 1 1 10rem;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: left;
  padding: var(--s1) var(--s2) var(--s1) 0;
  border-top: 1px solid var(--line);
  vertical-align: baseline;
}
tbody th {
  font-weight: 400;
  color: var(--ink-soft);
}
.differs td {
  font-weight: 700;
}
.said {
  font-weight: 600;
  color: var(--wet);
}
</style>

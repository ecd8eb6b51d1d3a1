<script setup lang="ts">
/** Moulds that are poured together. Usage: <ShelfSets /> */
import { newId } from '~~/shared/newId'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import { useSheetDraft } from '~/parts/form/useSheetDraft'
import { useConflict } from '~/parts/form/useConflict'
import { useUnits } from '~/parts/show/useUnits'
import { useWorkshop } from '~/stores/workshop'
import { setLines } from '~/parts/form/cardLines'
import { ERROR_WORDS } from '~/parts/words/errors'
import type { MouldSet, MouldSetInput } from '~~/shared/moulds'

const workshop = useWorkshop()
const units = useUnits()

const sets = computed(() =>
  workshop.mouldSets.map((set) => {
    const inIt = set.members.map((m) => ({
      ...m,
      card: workshop.moulds.find((c) => c.id === m.mouldId),
    }))
    return {
      set,
      inIt,
      totalMl: inIt.reduce((sum, m) => sum + m.count * (m.card?.cavityMl ?? 0), 0),
    }
  }),
)

const open = ref(false)
const seen = ref<number | null>(null)
const id = ref('')
const name = ref('')
const counts = ref<Record<string, number>>({})
const failure = ref('')
const problems = ref<Record<string, string>>({})
const {
  theirs,
  meets,
  clear: clearConflict,
  keepMine,
  takeTheirs,
} = useConflict<MouldSet>({ seen, keep: save, show: fill })

const chosen = ref<MouldSet>()
const { settled } = useSheetDraft(
  open,
  () => chosen.value?.id ?? 'new',
  () => fill(chosen.value),
)
function edit(set: MouldSet | undefined) {
  chosen.value = set
  open.value = true
}
function close() {
  settled()
  open.value = false
}
function fill(set: MouldSet | undefined) {
  id.value = set?.id ?? newId()
  seen.value = set?.revision ?? null
  clearConflict()
  name.value = set?.name ?? ''
  counts.value = Object.fromEntries(
    workshop.moulds.map((m) => [m.id, set?.members.find((x) => x.mouldId === m.id)?.count ?? 0]),
  )
  failure.value = ''
  problems.value = {}
}
const members = computed(() =>
  Object.entries(counts.value)
    .filter(([, count]) => count > 0)
    .map(([mouldId, count]) => ({ mouldId, count: Math.round(count) })),
)
const ready = computed(
  () =>
    name.value.trim() !== '' &&
    members.value.length > 0 &&
    Object.values(problems.value).every((p) => p === ''),
)
async function save() {
  if (!ready.value) return
  const answer = await workshop.saveMouldSet(id.value, seen.value, typed.value)
  if (answer.ok) close()
  else if (!meets(answer.failure)) failure.value = ERROR_WORDS[answer.failure.code]
}
const typed = computed(() => ({ name: name.value.trim(), members: members.value }))
const lines = (set: MouldSetInput) =>
  setLines(set, (mouldId) => workshop.moulds.find((m) => m.id === mouldId)?.name ?? '?')
async function remove() {
  const answer = await workshop.deleteMouldSet(id.value)
  if (answer.ok || answer.failure.code === 'not_found') close()
  else failure.value = ERROR_WORDS[answer.failure.code]
}
</script>

<template>
  <section aria-labelledby="shelf-sets" class="sets">
    <div class="head">
      <h2 id="shelf-sets">Poured together</h2>
      <Button severity="secondary" label="New set" @click="edit(undefined)" />
    </div>
    <p v-if="sets.length === 0" class="soft">
      A set is several moulds filled from one bowl: name it once, plan it in one step.
    </p>
    <div v-for="{ set, inIt, totalMl } in sets" :key="set.id" class="slab set">
      <div>
        <b>{{ set.name }}</b>
        <p class="soft">
          {{ inIt.map((m) => `${m.count > 1 ? `${m.count} × ` : ''}${m.card?.name ?? '?'}`).join(' + ') }}
        </p>
      </div>
      <span class="figure">{{ units.volume(totalMl) }}</span>
      <Button severity="secondary" label="Change" :aria-label="`Change ${set.name}`" @click="edit(set)" />
      <NuxtLink class="p-button" :to="{ path: '/plan', query: { set: set.id } }">Plan it</NuxtLink>
    </div>
    <SheetDialog v-model="open" :title="sets.some((s) => s.set.id === id) ? 'Change the set' : 'A new set'">
      <label class="field"><span>Its name</span><InputText v-model="name" maxlength="120" /></label>
      <div class="counts">
        <template v-for="m in workshop.moulds" :key="m.id">
          <QuantityField
            :model-value="counts[m.id]"
            kind="number"
            :decimals="0"
            :label="m.name"
            :min="0"
            :max="100"
            @update:model-value="counts[m.id] = $event ?? 0"
            @problem="problems[m.id] = $event"
          />
        </template>
      </div>
      <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
      <ConflictNote
        v-if="theirs"
        :mine="lines(typed)"
        :theirs="lines(theirs)"
        @mine="keepMine"
        @theirs="takeTheirs"
      />
      <div class="head">
        <Button label="Keep this set" :disabled="!ready" @click="save" />
        <Button
          v-if="sets.some((s) => s.set.id === id)"
          severity="secondary"
          label="Take the set apart"
          @click="remove"
        />
      </div>
    </SheetDialog>
  </section>
</template>

<style scoped>
.sets,
.counts {
  display: grid;
  gap: var(--s3);
}
.counts {
  max-height: 40vh;
  overflow: auto;
  grid-template-columns: repeat(auto-fill, minmax(13rem, 1fr));
  padding: 2px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3);
  align-items: center;
  justify-content: space-between;
}
.set {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto auto;
  gap: var(--s3);
  align-items: center;
  padding: var(--s3) var(--s4);
}
.figure {
  font-size: 1.5rem;
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
}
.failure {
  color: var(--hot);
  font-weight: 600;
}
@media (max-width: 43rem) {
  .set {
    grid-template-columns: 1fr auto;
  }
}
</style>

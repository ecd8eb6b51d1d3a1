<script setup lang="ts">
/** One print, from where it was found to its casts. Usage: <PrintRecord :id /> */
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import { MS_PER } from '#core/units'
import { useNowBy } from '~/stores/bench'
import { usePhotos } from '~/stores/photos'
import { useWorkshop } from '~/stores/workshop'
import { mouldLines } from '~/parts/form/cardLines'
import { momentText } from '~/parts/show/time'
import { useUnits } from '~/parts/show/useUnits'
import { ERROR_WORDS } from '~/parts/words/errors'
import { mouldDraftOf, mouldInputOf } from '~/parts/mould/mouldDraft'
import type { FindShot } from '~~/shared/finds'
import { usePrint } from './usePrint'

const { id } = defineProps<{ id: string }>()
const workshop = useWorkshop()
const photos = usePhotos()
const units = useUnits()
const router = useRouter()
const now = useNowBy(MS_PER.min)
const { card, print, find, way, failure, theirs, change, rename, flush, keepMine, takeTheirs } = usePrint(id)

const pictures = computed(() => (card.value ? photos.ofMould(id, card.value.photos) : []))
const shown = ref<string>()
const picture = computed(() => pictures.value.find((p) => p.id === shown.value) ?? pictures.value[0])
const unmarked = (photoId: string, widthPx: number, heightPx: number): FindShot => ({
  photoId,
  widthPx,
  heightPx,
  scale: null,
  tiltDeg: null,
  cameraHeightMm: null,
  marks: [],
  outline: null,
})
const shot = computed(() => {
  const of = picture.value
  if (!of || !find.value) return undefined
  return find.value.shots.find((s) => s.photoId === of.id) ?? unmarked(of.id, of.widthPx, of.heightPx)
})
function putShot(next: FindShot) {
  const others = find.value!.shots.filter((s) => s.photoId !== next.photoId)
  change({ shots: [...others, next] })
}

const problem = ref('')
async function taken({ file, tiltDeg }: { file: File; tiltDeg: number | null }) {
  problem.value = ''
  // As soon as it is here it is marked on: nothing that happens once it has been sent may touch that.
  const answer = await photos.takeOfMould(id, file, '', (photo) => {
    shown.value = photo.id
    if (photo.widthPx > 0 && find.value)
      putShot({ ...unmarked(photo.id, photo.widthPx, photo.heightPx), tiltDeg })
  })
  if (!answer.ok) problem.value = `${file.name}: ${ERROR_WORDS[answer.failure.code]}`
}

async function plan() {
  await flush()
  await router.push({ path: '/plan', query: { mould: id } })
}
const lines = (of: Parameters<typeof mouldLines>[0]) =>
  mouldLines(of, units, (plaster) => workshop.plasters.find((p) => p.id === plaster)?.name ?? '?')
</script>

<template>
  <div class="page">
    <template v-if="card && print && find && way">
      <header>
        <div>
          <h1>{{ print.name }}</h1>
          <p class="soft">Found {{ momentText(find.foundAtMs, now) }}</p>
        </div>
        <nav class="button-row" aria-label="This print">
          <Button label="Plan the pour" @click="plan" />
          <NuxtLink class="p-button p-button-secondary" :to="`/field/prints/${id}/card`"
            >Card to print</NuxtLink
          >
        </nav>
      </header>
      <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
      <ConflictNote
        v-if="theirs"
        :mine="lines(print)"
        :theirs="lines(mouldInputOf(mouldDraftOf(theirs)))"
        @mine="keepMine"
        @theirs="takeTheirs"
      />
      <div class="columns">
        <section class="slab part" aria-labelledby="photos-title">
          <h2 id="photos-title">Photographs</h2>
          <p v-if="problem" class="failure" role="alert">{{ problem }}</p>
          <ul v-if="pictures.length > 1" class="thumbs" aria-label="Which photograph">
            <li v-for="(p, i) in pictures" :key="p.id">
              <button
                type="button"
                :aria-pressed="p.id === picture?.id"
                :aria-label="`Photograph ${i + 1}`"
                @click="shown = p.id"
              >
                <img :src="photos.addressOf(p.id, 'thumb')" alt="" />
              </button>
            </li>
          </ul>
          <template v-if="picture && shot">
            <ShotTools
              v-if="picture.widthPx > 0"
              :key="picture.id"
              :shot="shot"
              :src="photos.addressOf(picture.id)"
              :name="print.name"
              @change="putShot"
            />
            <p v-else class="soft">
              This device cannot read this photograph. It is kept as it is, and measured once the workshop has
              it.
            </p>
          </template>
          <p v-else class="soft">
            Straight down, the rule in the frame at a right angle to the print, low sun, no flash; then from
            the sides. Before anything is touched.
          </p>
          <PrintCamera @taken="taken" />
        </section>
        <div class="column">
          <section class="slab part" aria-labelledby="amount-title">
            <h2 id="amount-title">What it takes</h2>
            <PrintAmount :find="find" :way="way" @change="change" />
          </section>
          <section class="slab part" aria-labelledby="place-title">
            <h2 id="place-title">Where it lies</h2>
            <label class="field">
              <span>It is called</span>
              <InputText
                :model-value="print.name"
                maxlength="120"
                @update:model-value="rename($event ?? '')"
              />
            </label>
            <PlaceFields :find="find" @change="change" />
          </section>
          <PrintCasts :mould-id="id" :find="find" :way="way" @change="change" />
        </div>
      </div>
    </template>
    <template v-else>
      <h1>{{ card ? 'This mould was not found as a print' : 'No such print here' }}</h1>
      <NuxtLink to="/field">Back to the field</NuxtLink>
    </template>
  </div>
</template>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: var(--s3);
  align-items: start;
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
}
.columns {
  display: grid;
  gap: var(--s4);
  grid-template-columns: minmax(0, 7fr) minmax(0, 5fr);
  align-items: start;
}
.column,
.part {
  display: grid;
  gap: var(--s4);
  min-width: 0;
}
.part {
  gap: var(--s3);
}
.thumbs {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  gap: var(--s2);
  overflow-x: auto;
}
.thumbs button {
  padding: 0;
  border: 4px solid transparent;
  border-radius: 0.6rem;
  background: none;
  cursor: pointer;
}
.thumbs button[aria-pressed='true'] {
  border-color: var(--wet);
}
.thumbs img {
  display: block;
  width: 5.5rem;
  height: 4rem;
  object-fit: cover;
  border-radius: 0.4rem;
}
@media (max-width: 60rem) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

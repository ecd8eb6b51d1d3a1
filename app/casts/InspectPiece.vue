<script setup lang="ts">
/** What is wrong with the piece: photographs, marks, kind, place and size. Usage: <InspectPiece :facts :pour-id :now-ms /> */
import { Camera, Trash } from '@lucide/vue'
import Button from 'primevue/button'
import { computed, ref, shallowRef, useTemplateRef } from 'vue'
import { FAULT_KINDS, FAULT_PLACES, type FaultKind, type FaultPlace, type Spot } from '#core/finish'
import { faultsOf, type PourOutlook } from '#core/pour'
import { usePhotoInput } from '~/parts/form/usePhotoInput'
import { momentText } from '~/parts/show/time'
import { useUnits } from '~/parts/show/useUnits'
import { FAULT_PLACE_WORDS, FAULT_WORDS, faultText } from '~/parts/words/faults'
import { usePhotos } from '~/stores/photos'
import { usePours } from '~/stores/pours'
import { usePieces } from '~/parts/pour/usePieces'
import { whichPieces } from '~/parts/words/pieces'
import { photosOf } from '~/parts/pour/photosOf'

const props = defineProps<{ facts: PourOutlook; pourId: string; nowMs: number }>()
const pours = usePours()
const photos = usePhotos()
const units = useUnits()

/** What is noted and photographed is so of these. */
const all = computed(() => props.facts.pieces)
const { chosen: about, said, none } = usePieces(all)
const asked = Number(useRoute().query.piece)
if (all.value.some((p) => p.number === asked)) about.value = [asked]
const ofWhich = (numbers: readonly number[]) => whichPieces(numbers, all.value.length)

const taken = computed(() => photosOf(props.facts))
/** Empty: the drawn section. Until somebody chooses, the last photograph. */
const chosen = ref<string>()
const shown = computed(() => {
  const known = chosen.value === '' || taken.value.some((p) => p.id === chosen.value)
  return (known ? chosen.value : taken.value.at(-1)?.id) ?? ''
})
const faults = computed(() => faultsOf(props.facts).map((fault, i) => ({ ...fault, n: i + 1 })))
const marks = computed(() =>
  faults.value.flatMap(({ n, spot, photoId }) =>
    spot && (photoId ?? '') === shown.value ? [{ n, spot }] : [],
  ),
)

const kind = ref<FaultKind | ''>('')
const place = ref<FaultPlace | ''>('')
const sizeMm = ref<number>()
const sizeProblem = ref('')
const spot = shallowRef<Spot>()
const kinds: { value: FaultKind | ''; label: string }[] = FAULT_KINDS.map((value) => ({
  value,
  label: FAULT_WORDS[value],
}))
const places: { value: FaultPlace | ''; label: string }[] = FAULT_PLACES.map((value) => ({
  value,
  label: FAULT_PLACE_WORDS[value],
}))
function note() {
  if (kind.value === '' || sizeProblem.value) return
  void pours.record(props.pourId, {
    type: 'defect',
    kind: kind.value,
    ...(place.value === '' ? {} : { place: place.value }),
    ...(sizeMm.value === undefined ? {} : { sizeMm: sizeMm.value }),
    ...said.value,
    ...(spot.value ? { spot: spot.value, ...(shown.value === '' ? {} : { photoId: shown.value }) } : {}),
  })
  clear()
}
function clear() {
  kind.value = place.value = ''
  sizeMm.value = spot.value = undefined
}
function takeBack(eventId: string) {
  void pours.record(props.pourId, { type: 'void', targetId: eventId })
}

const camera = useTemplateRef('camera')
const {
  busy,
  problem,
  pick: photograph,
} = usePhotoInput(async (file) => {
  const answer = await photos.take(props.pourId, file, said.value)
  if (answer.ok) chosen.value = answer.value
  return answer
})
</script>

<template>
  <section class="slab inspect" aria-labelledby="inspect-title">
    <h2 id="inspect-title">How it came out</h2>
    <WhichPieces v-model="about" label="Said of" :pieces="all" />
    <div class="both">
      <div class="pictures">
        <FaultBoard
          v-model:spot="spot"
          :facts="facts"
          :photo-id="shown === '' ? undefined : shown"
          :marks="marks"
          :marking="kind !== ''"
        />
        <div class="strip">
          <button
            v-if="facts.plan.mould.members"
            type="button"
            class="thumb drawn"
            :aria-pressed="shown === ''"
            @click="chosen = ''"
          >
            Drawn
          </button>
          <button
            v-for="photo in taken"
            :key="photo.id"
            type="button"
            class="thumb"
            :aria-pressed="shown === photo.id"
            :aria-label="`Photograph of ${momentText(photo.atMs, nowMs)}${photo.pieces ? `, ${ofWhich(photo.pieces)}` : ''}`"
            @click="chosen = photo.id"
          >
            <img :src="photos.addressOf(photo.id, 'thumb')" alt="" loading="lazy" />
          </button>
          <input
            ref="camera"
            type="file"
            accept="image/*"
            capture="environment"
            class="visually-hidden"
            tabindex="-1"
            aria-label="Photograph"
            @change="photograph"
          />
          <Button severity="secondary" :disabled="busy || none" @click="camera?.click()"
            ><Camera :size="20" aria-hidden="true" />{{ busy ? 'Sending…' : 'Photograph it' }}</Button
          >
          <Button
            v-if="shown !== ''"
            severity="secondary"
            aria-label="Remove this photograph"
            @click="photos.remove(pourId, shown)"
            ><Trash :size="18"
          /></Button>
        </div>
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
        <p v-else-if="photos.waiting.size > 0" class="soft" role="status">
          On its way: {{ photos.waiting.size }}. It goes by itself when the workshop answers.
        </p>
      </div>
      <div class="list">
        <ol v-if="faults.length" aria-label="Noted faults">
          <li v-for="fault in faults" :key="fault.eventId">
            <b class="n">{{ fault.n }}</b>
            <span
              >{{ faultText(fault, units)
              }}<span v-if="ofWhich(fault.pieces)" class="soft">, {{ ofWhich(fault.pieces) }}</span></span
            >
            <Button
              severity="secondary"
              :aria-label="`Take back: ${FAULT_WORDS[fault.kind]}`"
              @click="takeBack(fault.eventId)"
              ><Trash :size="18"
            /></Button>
          </li>
        </ol>
        <p v-else class="soft">Nothing wrong was noted. Name what you see; mark it on the picture.</p>
        <ChoicePills v-model="kind" label="What is wrong" :options="kinds" />
        <form v-if="kind !== ''" class="more" @submit.prevent="note">
          <ChoicePills v-model="place" label="Where" :options="places" />
          <QuantityField
            v-model="sizeMm"
            kind="length"
            label="Size, if it matters"
            :min="0.1"
            :max="5000"
            @problem="sizeProblem = $event"
          />
          <p class="soft">
            {{ spot ? 'Marked on the picture.' : 'Press on the picture to mark it, or leave it.' }}
          </p>
          <div class="act">
            <Button type="submit" label="Note it" :disabled="sizeProblem !== '' || none" />
            <Button severity="secondary" label="Leave it" @click="clear" />
          </div>
        </form>
      </div>
    </div>
  </section>
</template>

<style scoped>
.inspect,
.pictures,
.list,
.more {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s3);
  align-content: start;
}
.both {
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 6fr);
  gap: var(--s5);
}
.strip,
.act {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
  align-items: center;
}
.thumb {
  width: 4.4rem;
  height: 3.3rem;
  padding: 0;
  border: 3px solid transparent;
  border-radius: 0.5rem;
  overflow: hidden;
  background: var(--chalk);
  font-weight: 600;
  cursor: pointer;
}
.thumb[aria-pressed='true'] {
  border-color: var(--wet);
}
.thumb img {
  width: 100%;
  height: 100%;
  object-fit: cover;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: var(--s3);
  align-items: center;
  padding: var(--s1) 0;
  border-bottom: 1px solid var(--line);
  font-weight: 600;
}
.n {
  display: grid;
  place-items: center;
  width: 1.9rem;
  height: 1.9rem;
  border-radius: 50%;
  background: var(--hot);
  color: #fff;
}
.problem {
  color: var(--hot);
  font-weight: 600;
}
@media (max-width: 60rem) {
  .both {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

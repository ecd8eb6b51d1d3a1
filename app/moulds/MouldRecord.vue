<script setup lang="ts">
import { useHeeds } from '~/stores/heeds'
import { lastText } from './words'
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { describeCavity } from '#core/mould'
import { MS_PER } from '#core/units'
import { useNowBy } from '~/stores/bench'
import { useUnits } from '~/parts/show/useUnits'
import { useWorkshop } from '~/stores/workshop'
import {
  DAMAGE_WORDS,
  MATERIAL_WORDS,
  PURPOSE_WORDS,
  VOLUME_ISSUE_WORDS,
  WEAR_WORDS,
} from '~/parts/words/mould'
import { counted } from '~/parts/show/counted'
import { pictured, sectionOf, shownWay } from '~/parts/mould/ways'
import { castsOf, wearOfCard } from '~/parts/mould/shelf'
import { momentText } from '~/parts/show/time'
import { ERROR_WORDS } from '~/parts/words/errors'
import { provenanceWords } from '~/parts/words/plaster'
import { saysWhere } from '~~/shared/findPlace'

const { id } = defineProps<{ id: string }>()
const router = useRouter()
const workshop = useWorkshop()
const units = useUnits()
const heeds = useHeeds()
const now = useNowBy(MS_PER.min)

const card = computed(() => workshop.moulds.find((m) => m.id === id))
const plaster = computed(() => workshop.plasters.find((p) => p.id === card.value?.usualPlasterId))
const wear = computed(() => card.value && wearOfCard(card.value))
const issues = computed(() => (card.value ? describeCavity(card.value.volume).issues : []))
const ways = computed(() => {
  if (!card.value) return ''
  const { parts, check, cavities } = card.value.volume
  const names = parts.map(
    (p) => `${p.role === 'subtract' ? 'less ' : ''}${shownWay(p.method).name.toLowerCase()}`,
  )
  const times = cavities > 1 ? `, ${counted(cavities, 'cavity')}` : ''
  return `${names.join(', ')}${times}${check ? `; checked by ${shownWay(check).name.toLowerCase()}` : ''}`
})

/** Where a print lies leaves the workshop only where that is wished. */
const isPlaced = computed(() => !!card.value && saysWhere(card.value))
const withPlace = ref(false)

const asking = ref(false)
const failure = ref('')
async function remove() {
  const answer = await workshop.deleteMould(id)
  if (answer.ok || answer.failure.code === 'not_found') await router.push('/moulds')
  else failure.value = ERROR_WORDS[answer.failure.code]
}
</script>

<template>
  <div class="page">
    <template v-if="card">
      <header>
        <div>
          <h1>{{ card.name }}</h1>
          <p class="soft">
            {{ MATERIAL_WORDS[card.facts.material] }} · {{ PURPOSE_WORDS[card.purpose].toLowerCase()
            }}<template v-if="card.isSpill"> · takes leftovers</template>
          </p>
        </div>
        <nav class="acts" aria-label="This mould">
          <NuxtLink class="p-button" :to="{ path: '/plan', query: { mould: id } }">Plan a pour</NuxtLink>
          <NuxtLink v-if="card.find" class="p-button p-button-secondary" :to="`/field/prints/${id}`"
            >As it was found</NuxtLink
          >
          <NuxtLink class="p-button p-button-secondary" :to="`/moulds/${id}/edit`">Change it</NuxtLink>
          <NuxtLink class="p-button p-button-secondary" :to="`/moulds/${id}/card`">Card to print</NuxtLink>
          <BundleButton :request="{ of: 'mould', id, withPlace }" />
          <label v-if="isPlaced" class="tick-line">
            <input v-model="withPlace" type="checkbox" /> with where it lies
          </label>
        </nav>
      </header>
      <div class="columns">
        <div class="column">
          <section class="slab" aria-label="Section">
            <SectionPicture
              class="picture"
              :drawing="sectionOf(pictured(card.volume), card.cavityMl)"
              :material="card.facts.material"
              :label="`Section of ${card.name}, filled to the pour line`"
              dimensions
            />
            <p class="holds">
              <span class="figure">{{ units.volumeRange(card.cavityMl, card.plusMinusMl)[0] }}</span>
              <span>± {{ units.volumeRange(card.cavityMl, card.plusMinusMl)[1] }}</span>
            </p>
            <p class="soft">
              By {{ ways }}; {{ provenanceWords(card.volumeProvenance) }}. Dries like a slab of
              {{ units.length(card.thicknessMm) }}.
            </p>
            <p v-for="issue in issues" :key="issue.code" class="issue">
              {{ VOLUME_ISSUE_WORDS[issue.code](issue.actual, issue.limit, units) }}
            </p>
            <p v-if="card.note">{{ card.note }}</p>
            <p v-if="plaster" class="soft">Usually cast in {{ plaster.name }}.</p>
          </section>
          <section class="slab" aria-labelledby="m-history">
            <h2 id="m-history">Its casts</h2>
            <p>
              <span class="figure count">{{ castsOf(card) }}</span> so far<template
                v-if="card.castsBefore > 0"
                >, {{ card.castsBefore }} of them from before</template
              >.
            </p>
            <p>
              <NuxtLink :to="{ path: '/casts', query: { tags: `mould:${id}` } }">All of them</NuxtLink> ·
              <NuxtLink :to="{ path: '/casts', query: { tags: `mould:${id}`, verdict: 'failed' } }"
                >those that failed</NuxtLink
              >
            </p>
            <template v-if="wear">
              <div
                class="life"
                role="img"
                :aria-label="`${wear.casts} of ${Math.round(wear.life.low)} to ${counted(Math.round(wear.life.high), 'cast')}`"
              >
                <span
                  class="usual"
                  :style="{ left: `${(wear.life.low / Math.max(wear.life.high, wear.casts)) * 100}%` }"
                />
                <span
                  class="used"
                  :style="{ width: `${(wear.casts / Math.max(wear.life.high, wear.casts)) * 100}%` }"
                />
              </div>
              <p>
                <b>{{ WEAR_WORDS[wear.advice] }}.</b>
                <span class="soft">
                  {{ card.lifeCasts ? 'You expect' : `${MATERIAL_WORDS[card.facts.material]} usually gives` }}
                  {{ Math.round(wear.life.low) }} to {{ Math.round(wear.life.high) }}.</span
                >
              </p>
            </template>
            <p v-if="card.history.last">
              Last:
              <NuxtLink :to="`/casts/${card.history.last.pourId}`">{{ card.history.last.piece }}</NuxtLink>,
              {{ lastText(card.history.last, heeds.causesIn(id, card.history.last.pourId)) }},
              {{ momentText(card.history.last.atMs, now) }}
            </p>
            <ul v-if="card.history.damages.length > 0">
              <li v-for="(d, i) in card.history.damages" :key="i">
                {{ DAMAGE_WORDS[d.kind] }}, {{ momentText(d.atMs, now) }}
              </li>
            </ul>
          </section>
          <MouldHeeds :mould-id="id" :now-ms="now" />
          <section class="slab" aria-labelledby="m-photos">
            <h2 id="m-photos">Photos</h2>
            <MouldPhotos :mould-id="id" :photos="card.photos" />
          </section>
        </div>
        <section class="slab" aria-label="What it will do">
          <MouldAdvice
            :facts="card.facts"
            :volume="card.volume"
            :purpose="card.purpose"
            :thickness-mm="card.thicknessMm"
            :plaster-class="plaster?.label.classId"
          />
        </section>
      </div>
      <Button severity="secondary" class="remove" label="Take it off the shelf" @click="asking = true" />
      <SheetDialog v-model="asking" title="Take it off the shelf?">
        <p>Its photos and its place in sets go with it. Pours keep what they knew of it.</p>
        <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
        <div class="acts">
          <Button label="Take it off" @click="remove" />
          <Button severity="secondary" label="Leave it" @click="asking = false" />
        </div>
      </SheetDialog>
    </template>
    <template v-else>
      <h1>{{ workshop.mouldsLoaded ? 'This mould is not here (any more).' : 'Fetching the mould…' }}</h1>
      <NuxtLink to="/moulds">Back to the shelf</NuxtLink>
    </template>
  </div>
</template>

<style scoped>
.page,
.column,
.slab {
  display: grid;
  gap: var(--s3);
  align-content: start;
}
.page {
  width: 100%;
  gap: var(--s4);
}
header,
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3);
  align-items: center;
  justify-content: space-between;
}
.acts {
  justify-content: start;
  gap: var(--s2);
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 6fr) minmax(0, 5fr);
  gap: var(--s4);
  align-items: start;
}
.picture {
  height: clamp(12rem, 34vh, 20rem);
  background: var(--chalk);
  border-radius: 0.9rem;
  padding: var(--s3);
}
.holds {
  display: flex;
  gap: var(--s3);
  align-items: baseline;
}
.holds .figure {
  font-size: 2.8rem;
}
.count {
  font-size: 1.9rem;
}
.life {
  position: relative;
  height: 0.9rem;
  border-radius: 999px;
  background: var(--line);
  overflow: hidden;
}
.used,
.usual {
  position: absolute;
  inset: 0 auto 0 0;
}
.used {
  background: var(--ink);
}
.usual {
  right: 0;
  background: var(--warm-light);
}
.issue {
  background: var(--warm-light);
  border-left: 6px solid var(--warm);
  border-radius: 0.6rem;
  padding: var(--s2) var(--s3);
  font-weight: 600;
}
.failure {
  color: var(--hot);
  font-weight: 600;
}
.remove {
  justify-self: start;
}
ul {
  margin: 0;
}
@media (max-width: 60rem) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

<script setup lang="ts">
/**
 * What to weigh, bowl by bowl, water first, to be read from two metres. On the worksheet, and on paper.
 * Usage: <WeighOut :plan :outcome />
 */
import { computed } from 'vue'
import type { PlanOutcome, PourPlan } from '#core/pour'
import { useUnits } from '~/parts/show/useUnits'
import { BECAUSE_WORDS } from '~/parts/words/mix'
import { ingredientsOf, weighOutView } from './weighOut'

const props = defineProps<{ plan: PourPlan; outcome: PlanOutcome }>()
const units = useUnits()

const out = computed(() => weighOutView(props.plan, props.outcome))
const testId = (id: string) => (['water', 'powder'].includes(id) ? id : undefined)
const heading = computed(() => {
  const { because, batches } = props.outcome.batching
  if (batches.length === 1) return ''
  return `${batches.length} ${because === 'bags' ? 'bags' : 'bowls'}${because ? `, ${BECAUSE_WORDS[because]}` : ''}${
    out.value.shown ? '. Each:' : ''
  }`
})
</script>

<template>
  <section class="slab ground-wet card" aria-label="Weigh out">
    <div class="out">
      <p v-if="heading" class="each" data-testid="bowls">{{ heading }}</p>
      <div v-if="out.shown" class="amounts" :class="{ many: out.total.length > 2 }">
        <div v-for="i in ingredientsOf(plan, out.shown)" :key="i.id">
          <span class="what">{{ i.what }} <span class="other">{{ units.massOther(i.massG) }}</span></span>
          <span class="figure amount" :data-testid="testId(i.id)">{{ units.mass(i.massG) }}</span>
        </div>
      </div>
      <table v-else data-testid="batches">
        <thead>
          <tr>
            <th scope="col"><span class="visually-hidden">Bowl</span></th>
            <th v-for="i in out.total" :key="i.id" scope="col">{{ i.what }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, at) in out.rows" :key="at">
            <th scope="row">
              {{ row.name }}
              <small v-if="row.batch.bowlFill !== undefined"
                >{{ Math.round(100 * row.batch.bowlFill) }} % full</small
              ><small v-if="row.scoops" class="line">{{ row.scoops }} scoops</small>
            </th>
            <td v-for="i in row.ingredients" :key="i.id" class="figure" :data-what="i.what">
              {{ units.mass(i.massG) }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <BowlPicture
      :bowl-ml="out.bowlMl"
      :water-ml="out.largest.waterG"
      :slurry-ml="out.largest.slurryMl"
      label="Bowl with its water line and slurry line"
    />
    <div class="out rest">
      <p v-if="out.rows.length > 1" class="makes">
        All together
        <template v-for="(i, at) in out.total" :key="i.id"
          ><template v-if="at > 0">, </template>{{ i.what.toLowerCase() }}
          <b :data-testid="out.shown ? undefined : testId(i.id)">{{ units.mass(i.massG) }}</b></template
        >.
      </p>
      <p v-if="out.tare" class="makes" data-testid="tare">
        {{ plan.batching!.bowl!.name }} weighs <b>{{ units.mass(out.tare.bowlG) }}</b>; untared, with its
        water: <b>{{ units.mass(out.tare.withWaterG) }}</b>.
      </p>
      <p v-if="out.turns" class="makes" data-testid="turns">
        The scale takes {{ units.mass(plan.batching!.scaleCapacityG!) }}: weigh the water in
        <b>{{ out.turns.water }}</b>, the plaster in <b>{{ out.turns.powder }}</b> goes.
      </p>
      <p v-for="c in out.crumbs" :key="c.id" class="makes" data-testid="crumbs">
        <b>{{ units.mass(c.massG) }}</b> of {{ c.what.toLowerCase() }} is too little for this scale: a finer
        one{{
          c.into === 'water' && c.id !== 'water' ? ', or dissolve ten times as much and take a tenth' : ''
        }}.
      </p>
      <p v-if="out.taps" class="makes" data-testid="taps">
        Water of <b>{{ units.temp(out.taps.waterTempC) }}</b>: <b>{{ units.volume(out.taps.coldG) }}</b> cold
        first, then <b>{{ units.volume(out.taps.hotG) }}</b> hot<template v-if="!out.shown"
          >, all together: {{ Math.round(100 * out.taps.hotShare) }} % of each bowl’s water is hot</template
        >.
      </p>
      <p v-if="out.scoops" class="makes by-scoop" data-testid="scoops">
        By scoop: <b>{{ out.scoops.text }}</b> of plaster to <b>{{ out.scoops.waterText }}</b> of water, of
        {{ units.volume(plan.scoop!.measureMl) }} each.
        <template v-if="out.scoops.coarse">A smaller scoop would come closer.</template>
      </p>
      <slot />
    </div>
  </section>
</template>

<style scoped>
.card {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  gap: var(--s2) var(--s4);
  padding-block: var(--s3);
}
.out {
  display: grid;
  gap: var(--s2);
  min-width: 0;
}
.rest {
  grid-column: 1 / -1;
}
.each {
  font-weight: 700;
  font-size: 1.2rem;
}
.amounts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3) var(--s5);
}
.amounts > div {
  display: grid;
}
.what {
  font-weight: 600;
}
.what,
small,
thead th {
  color: var(--on-ground-soft);
}
.other {
  font-weight: 400;
}
.amount {
  font-size: clamp(2.6rem, 4.7vw, 3.6rem);
  white-space: nowrap;
}
.many .amount {
  font-size: clamp(2rem, 3.2vw, 2.5rem);
}
.many .other {
  display: block;
}
/* By cups nobody has a scale: these are what is read from the bench. */
.by-scoop {
  font-size: 1.35rem;
  line-height: 1.3;
}
table {
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 600;
}
th,
td {
  padding: var(--s1) var(--s4) var(--s1) 0;
  vertical-align: baseline;
}
td {
  font-size: clamp(1.4rem, 2.4vw, 1.9rem);
  white-space: nowrap;
}
th small {
  font-weight: 400;
  white-space: nowrap;
}
th .line {
  display: block;
}
tbody tr {
  border-top: 1px solid color-mix(in srgb, var(--on-ground) 22%, transparent);
}
.makes,
.rest :slotted(p) {
  line-height: 1.35;
}
.makes {
  color: var(--on-ground-soft);
}
.makes b {
  white-space: nowrap;
  color: var(--on-ground);
}
@media (max-width: 43rem) {
  .card {
    grid-template-columns: minmax(0, 1fr);
  }
  .card svg {
    justify-self: center;
    width: 6rem;
  }
  /* Bowl by bowl, each on a line of its own under its name. */
  thead {
    display: none;
  }
  tbody tr {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s4);
    padding: var(--s2) 0;
  }
  tbody th {
    flex: 1 0 100%;
  }
  th,
  td {
    padding: 0;
  }
  td::before {
    content: attr(data-what);
    display: block;
    font-family: var(--text);
    font-size: 0.84rem;
    font-weight: 400;
    letter-spacing: 0;
    color: var(--on-ground-soft);
  }
}
@media print {
  .card {
    background: #fff;
    color: #000;
    border: 2px solid #000;
  }
  .what,
  .makes,
  .makes b,
  small,
  thead th {
    color: #000;
  }
}
</style>

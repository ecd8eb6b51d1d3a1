<script setup lang="ts">
/** Two casts side by side: what differed, and how each came out. Usage: <CompareCasts :ids="[a, b]" /> */
import { computed } from 'vue'
import { diagnosePour, faultsOf } from '#core/pour'
import { usePour } from '~/parts/pour/usePour'
import { MS_PER } from '#core/units'
import { useNowBy } from '~/stores/bench'
import { figure } from '~/parts/show/figures'
import { dayText } from '~/parts/show/time'
import { useUnits } from '~/parts/show/useUnits'
import { CAUSE_WORDS } from '~/parts/words/causes'
import { faultText } from '~/parts/words/faults'
import { verdictText } from '~/parts/words/pieces'
import { comparisonOf } from '~/parts/pour/comparison'

const props = defineProps<{ ids: string[] }>()
const units = useUnits()
const now = useNowBy(MS_PER.min)
const casts = props.ids.map((id) => usePour(id))

const columns = computed(() =>
  casts.map(({ record, facts, failure }, i) => {
    const f = facts.value
    const { plan } = record.value ?? {}
    const rows = f ? comparisonOf(f, units) : []
    const causes = f ? diagnosePour(f).causes.filter((c) => c.chance > 0.5) : []
    const lines: [what: string, said: string][] =
      f && plan
        ? [
            ['Poured', dayText(record.value!.createdAtMs, now.value)],
            ['Which plaster', plan.plaster.name],
            ['Which bag', plan.plaster.bag?.name ?? 'not said'],
            ['Water at', units.temp(plan.waterTempC)],
            ['Mix at', units.temp(f.settingInput.mixTempC)],
            ['Room at', units.temp(plan.air.tempC)],
            ...rows.map((r): [string, string] => [r.what, r.happened]),
            ['Set against its forecast', f.learnt ? `× ${figure(Math.exp(f.learnt.pace.meanLn), 2)}` : '–'],
            ['Dried', plan.dryingPlace?.name ?? 'where it was poured'],
            [
              'Wrong with it',
              faultsOf(f)
                .map((x) => faultText(x, units))
                .join('; ') || 'nothing noted',
            ],
            ['Likely cause', causes.map((c) => CAUSE_WORDS[c.cause].name).join('; ') || '–'],
            ['Ended', f.verdict ? verdictText(f.pieces) : 'still on the go'],
            ['In words', f.verdict?.reason || '–'],
          ]
        : []
    return { id: props.ids[i]!, piece: plan?.piece ?? failure.value, lines }
  }),
)
const rows = computed(() => {
  const [a, b] = columns.value
  if (!a || !b) return []
  const whats = [...new Set([...a.lines, ...b.lines].map(([what]) => what))]
  return whats.map((what) => {
    const [left, right] = [a, b].map((c) => c.lines.find(([w]) => w === what)?.[1] ?? '–')
    return { what, left, right, differs: left !== right }
  })
})
</script>

<template>
  <div class="page">
    <h1>Side by side</h1>
    <p v-if="ids.length < 2" class="soft">Choose two casts in the log.</p>
    <section v-else class="slab">
      <table>
        <thead>
          <tr>
            <th scope="col"><span class="visually-hidden">What</span></th>
            <th v-for="c in columns" :key="c.id" scope="col">
              <NuxtLink :to="`/casts/${c.id}`">{{ c.piece || 'Fetching…' }}</NuxtLink>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.what" :class="{ differs: row.differs }">
            <th scope="row">{{ row.what }}</th>
            <td>{{ row.left }}</td>
            <td>{{ row.right }}<span v-if="row.differs" class="visually-hidden"> (differs)</span></td>
          </tr>
        </tbody>
      </table>
    </section>
  </div>
</template>

<style scoped>
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: left;
  vertical-align: top;
  padding: var(--s2) var(--s3) var(--s2) 0;
  border-bottom: 1px solid var(--line);
  font-weight: 400;
}
@media (max-width: 43rem) {
  th,
  td {
    padding-right: var(--s1);
    overflow-wrap: anywhere;
  }
}
thead th {
  font-weight: 700;
  font-size: 1.1rem;
}
tbody th {
  color: var(--ink-soft);
}
.differs td {
  font-weight: 700;
}
.differs th::before {
  content: '● ';
  color: var(--warm-ink);
}
</style>

<script setup lang="ts">
/** What all parts come to, how sure that is, and which of two ways to go by. Usage: <VolumeTotal :volume :own-ok @trust="…" /> */
import { computed } from 'vue'
import { describeCavity, type CavityDescription } from '#core/mould'
import { useUnits } from '~/parts/show/useUnits'
import { VOLUME_ISSUE_WORDS } from '~/parts/words/mould'
import { provenanceWords } from '~/parts/words/plaster'

const props = defineProps<{ volume: CavityDescription; ownOk: boolean }>()
const emit = defineEmits<{ trust: [which: CavityDescription['trust']] }>()
const units = useUnits()

const whole = computed(() => describeCavity(props.volume))
const wholeIssues = computed(() =>
  whole.value.issues.filter((i) => i.path === 'parts' || i.code === 'methods_disagree'),
)
/** Another part has something wrong; say where to look. */
const elsewhere = computed(
  () => !whole.value.ok && props.ownOk && whole.value.issues.some((i) => i.severity === 'error'),
)
const range = computed(() =>
  whole.value.ok
    ? units.volumeRange(whole.value.finding.volumeMl, whole.value.finding.plusMinusMl)
    : ['', ''],
)
const TRUST = [
  { value: 'parts', label: 'The first' },
  { value: 'check', label: 'The second' },
  { value: 'both', label: 'Both, weighed' },
] as const
</script>

<template>
  <div class="total" aria-live="polite">
    <p v-if="whole.ok" class="holds">
      Holds
      <span class="figure" data-testid="holds">{{ range[0] }}</span>
      <span class="soft">± {{ range[1] }} · {{ provenanceWords(whole.finding.provenance) }}</span>
    </p>
    <p v-else class="holds soft">
      {{ elsewhere ? 'Another part needs a look before this adds up.' : 'No volume yet.' }}
    </p>
    <p v-for="issue in wholeIssues" :key="issue.code" class="issue" :class="issue.severity" role="status">
      {{ VOLUME_ISSUE_WORDS[issue.code](issue.actual, issue.limit, units) }}
    </p>
    <div v-if="volume.check" class="trust">
      <span class="label" aria-hidden="true">Go by</span>
      <ChoicePills
        :model-value="volume.trust"
        label="Which figure to go by"
        :options="TRUST"
        @update:model-value="emit('trust', $event)"
      />
    </div>
  </div>
</template>

<style scoped>
.issue {
  border-radius: 0.6rem;
  padding: var(--s2) var(--s3);
  font-weight: 600;
  background: var(--warm-light);
  border-left: 6px solid var(--warm);
}
.issue.error {
  background: var(--hot-light);
  border-left-color: var(--hot);
}
.holds {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--s2);
}
.holds .figure {
  font-size: 1.9rem;
}
.total {
  display: grid;
  gap: var(--s2);
}
.trust {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
  align-items: center;
}
.label {
  font-weight: 600;
}
</style>

<script setup lang="ts">
/** A piece that is worked with: how often, and what it wants. Usage: <InUse :facts :pour-id :now-ms /> */
import Button from 'primevue/button'
import { computed } from 'vue'
import { UPKEEPS, type Upkeep } from '#core/finish'
import { upkeepOf, type PourOutlook } from '#core/pour'
import { counted } from '~/parts/show/counted'
import { dayText } from '~/parts/show/time'
import { UPKEEP_WORDS } from '~/parts/words/upkeep'
import { usePours } from '~/stores/pours'

const props = defineProps<{ facts: PourOutlook; pourId: string; nowMs: number }>()
const pours = usePours()

const next = computed(() => upkeepOf(props.facts))
const due = computed(() => next.value?.act && next.value.fromMs <= props.nowMs)
const did = (what: Upkeep) => void pours.record(props.pourId, { type: 'kept_up', what })
</script>

<template>
  <section v-if="next" class="slab use" aria-labelledby="use-title">
    <h2 id="use-title">In use</h2>
    <p>
      Used {{ counted(next.uses, 'time')
      }}<template v-if="next.life"
        >; such a mould usually sees {{ next.life.low }} to {{ next.life.high }} before its detail
        goes</template
      >.
    </p>
    <p v-if="next.act" :class="{ due }" role="status">
      <b>{{ UPKEEP_WORDS[next.act].wants }}</b>
      {{ due ? 'now' : `from ${dayText(next.fromMs, nowMs)}` }}.
      {{ UPKEEP_WORDS[next.act].how }}
    </p>
    <p v-else class="soft">It wants nothing: dry to the touch, it works.</p>
    <div class="acts">
      <Button
        v-for="what in UPKEEPS"
        :key="what"
        severity="secondary"
        :label="UPKEEP_WORDS[what].did"
        @click="did(what)"
      />
    </div>
  </section>
</template>

<style scoped>
.use {
  display: grid;
  gap: var(--s3);
}
.due {
  border-left: 6px solid var(--warm);
  padding-left: var(--s3);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
}
</style>

<script setup lang="ts">
/** What may look odd while it sets, and whether it matters. Usage: <OddSigns /> */
import { SIGN_WORDS } from '~/parts/words/demould'
</script>

<template>
  <details class="odd">
    <summary>Something looks odd</summary>
    <dl>
      <template v-for="{ sign, means } in SIGN_WORDS" :key="sign">
        <dt>{{ sign }}</dt>
        <dd>{{ means }}</dd>
      </template>
    </dl>
  </details>
</template>

<style scoped>
dt {
  font-weight: 700;
}
dd {
  margin: 0 0 var(--s2);
}
summary {
  min-height: 44px;
  display: flex;
  align-items: center;
  cursor: pointer;
  font-weight: 600;
}
</style>

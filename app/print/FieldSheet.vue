<script setup lang="ts">
/** A sheet to be filled out there with a pencil: blank lines for as many prints as fit. */
const LINES = [
  'Name',
  'Where',
  'Ground, weather, light',
  'Long × wide',
  'Depths by stick',
  'Stride, straddle',
  'Photographs',
  'Powder in at',
  'Poured at',
  'Lifted at',
  'How it came out',
]
</script>

<template>
  <PrintPage back="/field/pack" back-name="Back to packing">
    <h1>Field sheet</h1>
    <p>Day, place, who: <span class="blank" /></p>
    <table>
      <thead>
        <tr>
          <th scope="col" />
          <th v-for="n in 4" :key="n" scope="col">Print {{ n }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="line in LINES" :key="line">
          <th scope="row">{{ line }}</th>
          <td v-for="n in 4" :key="n" />
        </tr>
      </tbody>
    </table>
  </PrintPage>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  table-layout: fixed;
}
th,
td {
  border: 1.5px solid var(--ink);
  height: 3.4rem;
  padding: var(--s1) var(--s2);
  text-align: left;
  vertical-align: top;
  font-size: 0.95rem;
}
.blank {
  display: inline-block;
  width: min(24rem, 55vw);
  border-bottom: 1.5px solid var(--ink);
}
/* On a small screen two stand for all; on paper they all do. */
@media screen and (max-width: 48rem) {
  tr > :nth-child(n + 4) {
    display: none;
  }
}
</style>

<template>
  <PackLabels />
</template>

<template>
  <PairDevice />
</template>

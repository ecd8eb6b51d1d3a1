<template>
  <BenchRoom />
</template>

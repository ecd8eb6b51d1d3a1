<template>
  <CastLog />
</template>

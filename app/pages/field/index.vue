<template>
  <FieldRoom />
</template>

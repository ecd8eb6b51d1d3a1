<template>
  <NewMould />
</template>

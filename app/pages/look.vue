<template>
  <LookPage />
</template>

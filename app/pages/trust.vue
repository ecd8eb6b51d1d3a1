<template>
  <TrustPage />
</template>

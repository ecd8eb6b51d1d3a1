<template>
  <WorkshopSettings />
</template>

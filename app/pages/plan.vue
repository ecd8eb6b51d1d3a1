<template>
  <PlanSheet />
</template>

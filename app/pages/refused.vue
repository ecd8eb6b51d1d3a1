<template>
  <RefusedList />
</template>

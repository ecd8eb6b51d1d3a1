<template>
  <PackList />
</template>

<template>
  <MouldShelf />
</template>

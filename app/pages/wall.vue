<template>
  <WallRoom />
</template>

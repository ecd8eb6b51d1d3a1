<template>
  <LogFigures />
</template>

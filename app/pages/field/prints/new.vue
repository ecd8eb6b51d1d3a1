<template>
  <NewPrint />
</template>

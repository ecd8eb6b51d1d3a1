<template>
  <FieldSheet />
</template>

<template>
  <QuickStart />
</template>

<template>
  <StockRoom />
</template>

<template>
  <PeopleRoom />
</template>

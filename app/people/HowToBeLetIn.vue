<script setup lang="ts">
/** For a device that nobody let in: how that is done. Usage: <HowToBeLetIn /> */
</script>

<template>
  <h1>This device is not let in yet</h1>
  <p>
    At the desk, open <b>Settings</b>, then <b>People and devices</b>, and have it show a code for you. Read
    the code with this device’s camera. Nothing is typed.
  </p>
</template>

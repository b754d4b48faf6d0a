<script setup lang="ts">
/** A box that is large enough for a gloved finger, with the mark of how things stand. */
defineProps<{ mark: string; label: string; tone?: string }>()
</script>

<template>
  <button class="plain box" :class="tone" :aria-label="label"><span>{{ mark }}</span></button>
</template>

<style scoped>
.box {
  width: 44px;
  height: 44px;
  display: grid;
  place-items: center;
}
.box span {
  width: 24px;
  height: 24px;
  display: grid;
  place-items: center;
  border: 2px solid var(--granite);
  border-radius: 3px;
  font: 600 16px/1 var(--sans);
}
.box.done span {
  border-color: var(--moss);
  color: var(--moss);
}
.box.blocked span {
  border-color: var(--rust);
  color: var(--rust);
}
</style>

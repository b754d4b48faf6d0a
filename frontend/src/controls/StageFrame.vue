<script setup lang="ts">
/** The frame of a stage that is a page rather than a sheet: a bar above, the work below. */
</script>

<template>
  <section class="frame">
    <div class="bar"><slot name="bar" /></div>
    <slot />
  </section>
</template>

<style scoped>
.frame {
  height: 100%;
  display: flex;
  flex-direction: column;
}
.bar {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 4px 12px;
  padding: 5px 8px;
  border-bottom: 1px solid var(--granite-light);
  min-height: 42px;
}
.frame > :deep(.page) {
  flex: 1;
  min-height: 0;
}
</style>

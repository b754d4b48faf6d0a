<script setup lang="ts">
/** The frame of a stage that is a page rather than a sheet: a bar above, the work below, and where there
 *  is one the drawing beside it. */
</script>

<template>
  <section class="frame">
    <div class="bar"><slot name="bar" /></div>
    <div class="ground">
      <slot />
      <slot name="drawing" />
    </div>
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
.ground {
  flex: 1;
  min-height: 0;
  display: flex;
}
.ground > :deep(.page) {
  flex: 1;
  min-width: 0;
  height: auto;
}
.ground > :deep(.drawing) {
  width: 44%;
  border-left: 1px solid var(--granite-light);
}
</style>

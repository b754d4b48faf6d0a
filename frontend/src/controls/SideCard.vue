<script setup lang="ts">
/** One of several ways that are weighed side by side: its name, then figures line by line, then what it asks. */
defineProps<{ title: string; tone?: 'good' | 'bad' | 'now' }>()
</script>

<template>
  <article class="side-card" :class="tone ?? 'good'">
    <h3>{{ title }}</h3>
    <slot />
  </article>
</template>

<style>
.side-cards {
  display: flex;
  gap: 10px;
  overflow-x: auto;
  align-items: stretch;
}
.side-card {
  flex: 1 0 190px;
  border: 1px solid var(--granite-mid);
  border-top: 3px solid var(--moss-line);
  border-radius: 3px;
  padding: 6px 10px 8px;
  display: flex;
  flex-direction: column;
  gap: 4px;
}
.side-card.bad {
  border-top-color: var(--rust);
}
.side-card.now {
  border-top-color: var(--granite-mid);
}
.side-card h3 {
  font: 600 13px/1.25 var(--condensed);
  margin: 0;
}
.side-card dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 1px 8px;
  margin: 2px 0;
  font: 400 12px/1.35 var(--condensed);
}
.side-card dt {
  color: var(--granite);
}
.side-card dd {
  margin: 0;
  text-align: right;
}
.side-card dd.price {
  font-weight: 600;
  font-size: 13px;
}
.side-card p {
  font: 400 11px/1.35 var(--condensed);
  margin: 0;
}
.side-card > :last-child {
  margin-top: auto;
}
</style>

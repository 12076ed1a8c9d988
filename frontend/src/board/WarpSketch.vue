<script setup lang="ts">
/** The four kinds of warp get mixed up, so wherever one is asked for, it is drawn. */
defineProps<{ kind: "bow" | "cup" | "twist" | "crook" }>();
</script>

<template>
  <svg viewBox="0 0 96 44" width="96" height="44" aria-hidden="true">
    <path class="bench" d="M2 38H94" />
    <template v-if="kind === 'bow'">
      <path class="wood" d="M6 38Q48 14 90 38L90 32Q48 8 6 32Z" />
      <path class="gap" d="M48 38V27M45 30l3 -3l3 3M45 35l3 3l3 -3" />
    </template>
    <template v-else-if="kind === 'cup'">
      <path class="wood" d="M22 38Q48 16 74 38L74 28Q48 6 22 28Z" />
      <path class="gap" d="M48 38V29M45 32l3 -3l3 3M45 35l3 3l3 -3" />
    </template>
    <template v-else-if="kind === 'twist'">
      <path class="wood" d="M8 38L60 38L88 22L38 30Z" />
      <path class="gap" d="M88 38V24M85 27l3 -3l3 3M85 35l3 3l3 -3" />
    </template>
    <template v-else>
      <path class="wood" d="M6 20Q48 34 90 20L90 8Q48 22 6 8Z" />
    </template>
  </svg>
</template>

<style scoped>
.bench {
  stroke: var(--ink);
  stroke-width: 1.5;
}
.wood {
  fill: var(--oak);
  stroke: var(--ink);
  stroke-width: 1.2;
}
.gap {
  stroke: var(--crayon);
  stroke-width: 1.8;
  fill: none;
}
</style>

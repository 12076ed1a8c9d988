<script setup lang="ts">
/**
 * The face under the cutter: pencil lines across it where no wood has gone, red where the next pass
 * takes them.
 */
import { computed } from "vue";

const props = defineProps<{
  lines: boolean[][];
  next?: boolean[][];
  length: number;
  width: number;
  label: string;
}>();
const long = 1000;
const high = computed(() => Math.max(60, Math.min(260, (long * props.width) / props.length)));
function path(drawn: (clean: boolean, i: number, j: number) => boolean): string {
  let text = "";
  props.lines.forEach((row, i) => {
    const x = ((i + 0.5) / props.lines.length) * long;
    row.forEach((clean, j) => {
      if (!drawn(clean, i, j)) return;
      const y = (step: number) => ((1 - step / row.length) * high.value).toFixed(1);
      text += `M${x.toFixed(1)} ${y(j + 1)}V${y(j)}`;
    });
  });
  return text;
}
const stays = computed(() => path((clean, i, j) => !clean && !props.next?.[i]?.[j]));
const goes = computed(() => (props.next ? path((clean, i, j) => !clean && props.next![i]![j]!) : ""));
</script>

<template>
  <svg :viewBox="`0 0 ${long} ${high}`" class="face" role="img" :aria-label="label">
    <rect :width="long" :height="high" class="wood" />
    <path :d="stays" class="pencil" />
    <path v-if="goes" :d="goes" class="goes" />
  </svg>
</template>

<style scoped>
.face {
  display: block;
  width: 100%;
  max-height: 20rem;
  border: 2px solid var(--ink);
}
.wood {
  fill: #e2c79b;
}
.pencil {
  stroke: #3b3b45;
  stroke-width: 3;
}
.goes {
  stroke: var(--crayon);
  stroke-width: 8;
}
</style>

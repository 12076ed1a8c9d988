<script setup lang="ts">
/** What has to come off a face, place by place, laid over its drawing: the darker, the deeper. */
import { computed } from "vue";
import { showAbout, type System } from "../measure";

const props = defineProps<{
  pieces: { x0: number; x1: number; y0: number; y1: number; below: number[][]; above: number[][] }[];
  face: "A" | "B";
  x: (t: number) => number;
  y: (t: number) => number;
  system: System;
}>();
const cells = computed(() =>
  props.pieces.flatMap((p) => {
    const rows = props.face === "A" ? p.above : p.below;
    const most = Math.max(1, ...rows.flat());
    return rows.flatMap((row, i) =>
      row.map((depth, j) => {
        const [xa, xb] = [
          props.x(p.x0 + ((p.x1 - p.x0) * i) / rows.length),
          props.x(p.x0 + ((p.x1 - p.x0) * (i + 1)) / rows.length),
        ];
        const [ya, yb] = [
          props.y(p.y0 + ((p.y1 - p.y0) * j) / row.length),
          props.y(p.y0 + ((p.y1 - p.y0) * (j + 1)) / row.length),
        ];
        return {
          x: xa,
          y: Math.min(ya, yb),
          w: xb - xa,
          h: Math.abs(yb - ya),
          share: depth / most,
          says: showAbout(depth, props.system),
        };
      }),
    );
  }),
);
</script>

<template>
  <g class="depth">
    <rect
      v-for="(c, i) in cells"
      :key="i"
      :x="c.x"
      :y="c.y"
      :width="c.w"
      :height="c.h"
      :fill-opacity="0.75 * c.share"
      ><title>{{ $t("{says} comes off here", { says: c.says }) }}</title></rect
    >
  </g>
</template>

<style scoped>
.depth rect {
  fill: var(--ink);
  shape-rendering: crispEdges;
}
</style>

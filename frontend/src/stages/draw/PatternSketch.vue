<script setup lang="ts">
/** One view of a pattern with its dimensions, drawn from the same formulas as its parts. */
import { computed } from "vue";
import type { Schemas } from "../../api/client";
import { woodColours } from "../../board/geometry";
import { show, type System } from "../../measure";

const props = defineProps<{ sketch: Schemas["SketchBody"]; system: System; species: string }>();
interface Dim {
  along: "x" | "y";
  start: number;
  end: number;
  tier: number;
  figure: number;
}
interface Rect {
  part: string;
  x: number;
  y: number;
  w: number;
  h: number;
}

const size = computed(() => Math.max(props.sketch.width, props.sketch.height));
const text = computed(() => size.value / 15);
const gap = computed(() => text.value * 1.7);
const rects = computed(() => props.sketch.rects as unknown as Rect[]);
const dims = computed(() =>
  (props.sketch.dims as unknown as Dim[]).map((d) => {
    const off = gap.value * (d.tier + 1);
    return d.along === "x"
      ? {
          ...d,
          x1: d.start,
          x2: d.end,
          y1: props.sketch.height + off,
          y2: props.sketch.height + off,
          words: show(d.figure, props.system),
        }
      : { ...d, x1: -off, x2: -off, y1: d.start, y2: d.end, words: show(d.figure, props.system) };
  }),
);
const margin = computed(() => gap.value * 3.2);
const box = computed(() =>
  [
    -margin.value,
    -text.value,
    props.sketch.width + margin.value + text.value,
    props.sketch.height + margin.value + text.value,
  ].join(" "),
);
</script>

<template>
  <figure>
    <svg :viewBox="box" role="img" :aria-label="$t('{name} view', { name: sketch.name })">
      <rect
        v-for="(r, i) in rects"
        :key="i"
        :x="r.x"
        :y="r.y"
        :width="r.w"
        :height="r.h"
        :fill="woodColours(species)[0]"
        class="part"
        :stroke-width="size / 400"
      >
        <title>{{ r.part }}</title>
      </rect>
      <g v-for="(d, i) in dims" :key="`d${i}`" class="dim">
        <line :x1="d.x1" :y1="d.y1" :x2="d.x2" :y2="d.y2" :stroke-width="size / 500" />
        <line
          v-if="d.along === 'x'"
          :x1="d.x1"
          :x2="d.x1"
          :y1="d.y1 - text / 2"
          :y2="d.y1 + text / 2"
          :stroke-width="size / 300"
        />
        <line
          v-if="d.along === 'x'"
          :x1="d.x2"
          :x2="d.x2"
          :y1="d.y1 - text / 2"
          :y2="d.y1 + text / 2"
          :stroke-width="size / 300"
        />
        <line
          v-if="d.along === 'y'"
          :y1="d.y1"
          :y2="d.y1"
          :x1="d.x1 - text / 2"
          :x2="d.x1 + text / 2"
          :stroke-width="size / 300"
        />
        <line
          v-if="d.along === 'y'"
          :y1="d.y2"
          :y2="d.y2"
          :x1="d.x1 - text / 2"
          :x2="d.x1 + text / 2"
          :stroke-width="size / 300"
        />
        <text
          v-if="d.along === 'x'"
          :x="(d.x1 + d.x2) / 2"
          :y="d.y1 - text * 0.25"
          :font-size="text"
          text-anchor="middle"
        >
          {{ d.words }}
        </text>
        <text
          v-else
          :x="d.x1 - text * 0.25"
          :y="(d.y1 + d.y2) / 2"
          :font-size="text"
          text-anchor="middle"
          :transform="`rotate(-90 ${d.x1 - text * 0.25} ${(d.y1 + d.y2) / 2})`"
        >
          {{ d.words }}
        </text>
      </g>
    </svg>
    <figcaption>{{ sketch.name }}</figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  display: flex;
  flex-direction: column;
  align-items: center;
  min-width: 0;
}
svg {
  width: 100%;
  height: 17rem;
}
.part {
  stroke: var(--bark);
}
.dim line {
  stroke: var(--crayon);
}
.dim text {
  fill: var(--ink);
  font-weight: 620;
}
figcaption {
  font-size: 0.8rem;
  color: var(--ink-soft);
}
</style>

<script setup lang="ts">
/**
 * One fault as it looks: round where it is a knot, a crack, a patch of bark, or a stain; crossed
 * out where it is unsound.
 */
import { computed } from "vue";
import type { Defect } from "../api/client";
import { show, type System } from "../measure";
import { SOUND } from "./geometry";
import { isRound } from "./make";
import { t } from "../i18n/i18n";

const props = defineProps<{
  fault: Defect;
  face: "A" | "B";
  system: System;
  x: (t: number) => number;
  y: (t: number) => number;
  line: string;
  hatch: string;
  chosen: boolean;
}>();

const here = computed(() => props.fault.face === "both" || props.fault.face === props.face);
const sound = computed(() => SOUND.includes(props.fault.kind));
const box = computed(() => {
  const d = props.fault;
  const y = Math.min(props.y(d.y0), props.y(d.y1));
  return {
    x: props.x(d.x0),
    y,
    w: Math.max(2, props.x(d.x1) - props.x(d.x0)),
    h: Math.max(2, Math.abs(props.y(d.y1) - props.y(d.y0))),
  };
});
const look = computed(() => {
  const kind = props.fault.kind;
  const there = here.value;
  if (kind.includes("knot") || kind === "hole")
    return { fill: "#6b4423", opacity: there ? 0.85 : 0.12, stroke: "#4a2c12" };
  if (kind === "metal") return { fill: "#57606b", opacity: there ? 0.9 : 0.2, stroke: "#12171d" };
  if (["check", "split", "shake", "pith"].includes(kind))
    return { fill: props.hatch, opacity: 1, stroke: "none" };
  if (["wane", "bark"].includes(kind))
    return { fill: "#5b3a1e", opacity: there ? 0.8 : 0.12, stroke: "#3b220d" };
  return {
    fill: kind === "sapwood" ? "#fff6df" : "#57606b",
    opacity: there ? 0.45 : 0.08,
    stroke: props.line,
  };
});
/** A knot measured by its bounds only: what is kept clear is the rectangle round it. */
const knotted = computed(() => props.fault.shape === "rectangle" && isRound(props.fault.kind));
const dashed = computed(() => (here.value ? "" : "3 2"));
const weight = computed(() => ({ slight: 0.8, plain: 1.6, grave: 3 })[props.fault.severity]);
const crack = computed(() => {
  if (!["check", "split", "shake", "pith"].includes(props.fault.kind)) return "";
  const { x, y, w, h } = box.value;
  let path = `M${x} ${y + h / 2}`;
  for (let k = 1; k <= 6; k++)
    path += `L${x + (w * k) / 6} ${y + h / 2 + (k % 2 ? -1 : 1) * Math.min(h / 2, 2.2)}`;
  return path;
});
const points = computed(() => props.fault.points.map((p) => `${props.x(p[0]!)},${props.y(p[1]!)}`).join(" "));
const title = computed(() => {
  const d = props.fault;
  const severity = d.severity === "plain" ? "" : `${d.severity} `;
  const face = d.face === "both" ? t("both faces") : "face " + d.face;
  return `${severity}${d.kind}, ${face}, ${show(d.x0, props.system)} to ${show(d.x1, props.system)}`;
});
</script>

<template>
  <g class="fault" :class="{ other: !here, chosen }">
    <title>{{ title }}</title>
    <rect v-if="knotted" class="bounds" :x="box.x" :y="box.y" :width="box.w" :height="box.h" />
    <ellipse
      v-if="fault.shape === 'ellipse' || knotted"
      :cx="box.x + box.w / 2"
      :cy="box.y + box.h / 2"
      :rx="box.w / 2"
      :ry="box.h / 2"
      :fill="look.fill"
      :fill-opacity="look.opacity"
      :stroke="look.stroke"
      :stroke-dasharray="dashed"
    />
    <polygon
      v-else-if="fault.shape === 'outline'"
      :points="points"
      :fill="look.fill"
      :fill-opacity="look.opacity"
      :stroke="look.stroke"
      :stroke-dasharray="dashed"
    />
    <rect
      v-else
      :x="box.x"
      :y="box.y"
      :width="box.w"
      :height="box.h"
      :fill="look.fill"
      :fill-opacity="look.opacity"
      :stroke="look.stroke"
      :stroke-dasharray="dashed"
    />
    <path v-if="crack" :d="crack" fill="none" stroke="#2a1608" :stroke-width="weight" />
    <path
      v-else-if="!sound"
      :d="`M${box.x} ${box.y}l${box.w} ${box.h}m0 ${-box.h}l${-box.w} ${box.h}`"
      stroke="#b3142a"
      :stroke-width="weight"
    />
    <ellipse
      v-else-if="fault.kind.includes('knot') && here"
      :cx="box.x + box.w / 2"
      :cy="box.y + box.h / 2"
      :rx="box.w / 4"
      :ry="box.h / 4"
      fill="none"
      stroke="#c79a63"
      stroke-width=".8"
    />
  </g>
</template>

<style scoped>
.fault {
  cursor: pointer;
}
.bounds {
  fill: none;
  stroke: #12171d;
  stroke-width: 0.7;
  stroke-dasharray: 2 3;
}
.fault.chosen {
  outline: 3px solid var(--chalk);
}
</style>

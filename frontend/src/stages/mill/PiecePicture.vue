<script setup lang="ts">
/** A piece as it is now, with its faults; a tap on it says where something is. */
import { computed } from "vue";
import type { Piece } from "../../api/log";

type Box = { x0: number; x1: number; y0: number; y1: number };
const props = defineProps<{ piece: Piece; mark: Box | null }>();
const emit = defineEmits<{ tapped: [x: number, y: number] }>();

const low = computed(() => Math.min(...props.piece.outline.map((o) => o[1]!)));
const high = computed(() => Math.max(...props.piece.outline.map((o) => o[2]!)));
/** The datum edge lies at the bottom. */
const up = (y: number) => high.value - y;
const outline = computed(() =>
  [
    ...props.piece.outline.map((o) => [o[0]!, up(o[1]!)]),
    ...[...props.piece.outline].reverse().map((o) => [o[0]!, up(o[2]!)]),
  ]
    .map((at) => at.join(","))
    .join(" "),
);
const boxes = computed(() => props.piece.faults.map((f) => rectangle(f)));
const mine = computed(() => props.mark && rectangle(props.mark));
const stroke = computed(() => Math.max(props.piece.length / 400, 40));

function rectangle(box: Box): { x: number; y: number; width: number; height: number } {
  return { x: box.x0, y: up(box.y1), width: box.x1 - box.x0, height: box.y1 - box.y0 };
}
function tapped(event: MouseEvent): void {
  const svg = event.currentTarget as SVGSVGElement;
  const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM()!.inverse());
  emit("tapped", Math.round(at.x), Math.round(high.value - at.y));
}
</script>

<template>
  <svg
    class="piece"
    role="img"
    :aria-label="
      $t('{mark}, datum end left, datum edge down, {faults} faults', {
        mark: piece.mark,
        faults: piece.faults.length,
      })
    "
    :viewBox="`${-stroke} ${-stroke} ${piece.length + 2 * stroke} ${high - low + 2 * stroke}`"
    @click="tapped"
  >
    <polygon :points="outline" class="wood" :stroke-width="stroke" />
    <rect v-for="(box, k) in boxes" :key="k" v-bind="box" class="fault" :stroke-width="stroke" />
    <rect v-if="mine" v-bind="mine" class="mine" :stroke-width="2 * stroke" />
  </svg>
</template>

<style scoped>
.piece {
  width: 100%;
  max-height: 15rem;
  min-height: 4.5rem;
  cursor: crosshair;
  touch-action: manipulation;
}
.wood {
  fill: var(--wood, #e2cda6);
  stroke: var(--ink);
}
.fault {
  fill: rgb(18 23 29 / 35%);
  stroke: var(--ink);
}
.mine {
  fill: rgb(190 40 30 / 25%);
  stroke: var(--crayon);
}
</style>

<script setup lang="ts">
/**
 * The board on the bench seen from its datum edge and far end, heights exaggerated as stated, the
 * flat board inside it in blue.
 */
import { computed } from "vue";
import type { Board, Schemas } from "../api/client";
import { edges, shaded, thickness, underside, woodColours } from "./geometry";

const props = defineProps<{ board: Board; pieces: Schemas["PieceBody"][]; width: number; factor: number }>();
const ALONG = 28;
const ACROSS = 6;
const wide = computed(
  () =>
    Math.max(...props.board.stations.map((s) => s.y1)) -
    Math.min(0, ...props.board.stations.map((s) => s.y0)),
);
const sx = computed(() => (props.width - 24) / (props.board.length + 1.1 * wide.value));
/** y runs away from the eye: to the right and up by so much. */
const at = (x: number, y: number, z: number): [number, number] => [
  8 + sx.value * (x + 1.1 * y),
  -sx.value * (0.9 * y + props.factor * z),
];
const text = (points: [number, number][]): string =>
  points.map(([a, b]) => `${a.toFixed(1)},${b.toFixed(1)}`).join(" ");
function face(x: number, v: number, upper: boolean): [number, number] {
  const [low, high] = edges(props.board, x);
  return at(
    x,
    low + v * (high - low),
    underside(props.board, x, v) + (upper ? thickness(props.board, x, v) : 0),
  );
}
const places = Array.from({ length: ALONG + 1 }, (_, i) => i / ALONG);
const top = computed(() => {
  const [wood] = woodColours(props.board.species);
  const L = props.board.length;
  const quads = [];
  for (let i = 0; i < ALONG; i++)
    for (let j = 0; j < ACROSS; j++) {
      const [u, w, a, b] = [(i / ALONG) * L, ((i + 1) / ALONG) * L, j / ACROSS, (j + 1) / ACROSS];
      const rise = underside(props.board, w, b) - underside(props.board, u, a);
      const light = Math.min(1, Math.max(0, 0.8 - (props.factor * rise * ALONG) / L / 1.6));
      quads.push({
        points: text([face(u, a, true), face(w, a, true), face(w, b, true), face(u, b, true)]),
        fill: shaded(wood, light),
      });
    }
  return quads;
});
const side = computed(() =>
  text([
    ...places.map((u) => face(u * props.board.length, 0, false)),
    ...[...places].reverse().map((u) => face(u * props.board.length, 0, true)),
  ]),
);
const end = computed(() => {
  const across = Array.from({ length: ACROSS + 1 }, (_, j) => j / ACROSS);
  return text([
    ...across.map((v) => face(props.board.length, v, false)),
    ...[...across].reverse().map((v) => face(props.board.length, v, true)),
  ]);
});
const bench = computed(() =>
  text([
    at(0, 0, 0),
    at(props.board.length, 0, 0),
    at(props.board.length, wide.value, 0),
    at(0, wide.value, 0),
  ]),
);
const slabs = computed(() =>
  props.pieces.flatMap((p) => {
    const plane = (x: number, y: number, up: number) => at(x, y, p.a * x + p.b * y + p.c + up);
    const near = (x: number) => edges(props.board, x)[0];
    const far = (x: number) => edges(props.board, x)[1];
    const sides = [
      text([
        plane(p.x0, near(p.x0), 0),
        plane(p.x1, near(p.x1), 0),
        plane(p.x1, near(p.x1), p.flat),
        plane(p.x0, near(p.x0), p.flat),
      ]),
    ];
    if (p.x1 >= props.board.length - 1)
      sides.push(
        text([
          plane(p.x1, near(p.x1), 0),
          plane(p.x1, far(p.x1), 0),
          plane(p.x1, far(p.x1), p.flat),
          plane(p.x1, near(p.x1), p.flat),
        ]),
      );
    return sides;
  }),
);
const box = computed(() => {
  const ys = [
    ...bench.value.split(" "),
    ...side.value.split(" "),
    ...top.value.flatMap((q) => q.points.split(" ")),
  ].map((p) => Number(p.split(",")[1]));
  const [low, high] = [Math.min(...ys) - 6, Math.max(...ys) + 6];
  return `0 ${low} ${props.width} ${high - low}`;
});
const height = computed(() => Number(box.value.split(" ")[3]));
</script>

<template>
  <figure>
    <svg
      :viewBox="box"
      :width="width"
      :height="height"
      role="img"
      :aria-label="$t('Board {id} on the bench', { id: board.id })"
    >
      <polygon :points="bench" class="bench" />
      <polygon
        v-for="(q, i) in top"
        :key="i"
        :points="q.points"
        :fill="q.fill"
        :stroke="q.fill"
        stroke-width=".5"
      />
      <polygon :points="end" class="cutend" :fill="shaded(woodColours(board.species)[0], 0.45)" />
      <polygon :points="side" class="cutend" :fill="shaded(woodColours(board.species)[0], 0.65)" />
      <polygon v-for="(s, i) in slabs" :key="`s${i}`" :points="s" class="slab" />
    </svg>
    <figcaption class="label">
      {{
        $t(
          "From its datum edge, heights ×{factor}. Blue is the flat board inside, on the edge and the end.",
          { factor },
        )
      }}
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  max-width: 100%;
}
.bench {
  fill: none;
  stroke: var(--ink);
  stroke-dasharray: 3 4;
}
.cutend {
  stroke: var(--ink);
  stroke-width: 0.8;
}
.slab {
  fill: var(--chalk);
  fill-opacity: 0.42;
  stroke: var(--chalk-ink);
}
</style>

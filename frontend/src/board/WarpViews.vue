<script setup lang="ts">
/**
 * The board seen from its side and from its ends, warp exaggerated as stated, with the flat slab
 * inside it.
 */
import { computed } from "vue";
import type { Board, Schemas } from "../api/client";
import { showAbout, type System, TICKS_PER_INCH } from "../measure";
import { edges, thickness, underside, woodColours } from "./geometry";
import ThreeQuarterView from "./ThreeQuarterView.vue";

const props = defineProps<{ board: Board; system: System; pieces: Schemas["PieceBody"][]; width: number }>();

const IN = TICKS_PER_INCH;
const colours = computed(() => woodColours(props.board.species));
/**
 * How much higher than true the heights are drawn: enough that a sixteenth can be seen, not so much
 * that it lies.
 */
const factor = computed(() => {
  // As scanned or by its figures: how far the underside's highest and lowest places lie apart.
  const seen = [0, 0.25, 0.5, 0.75, 1].flatMap((u) =>
    [0, 0.5, 1].map((v) => underside(props.board, u * props.board.length, v)),
  );
  const most = Math.max(Math.max(...seen) - Math.min(...seen), IN / 16);
  // A short thick board would fill the screen: its side is drawn no taller than a hand's breadth.
  const tallest =
    130 / (((props.width - 12) / props.board.length) * Math.max(...props.board.stations.map((s) => s.t0)));
  return Math.max(
    1,
    Math.min(20, Math.round((26 / props.width) * (props.board.length / most)), Math.floor(tallest)),
  );
});
const sx = computed(() => (props.width - 12) / props.board.length);
const sz = computed(() => sx.value * factor.value);
const PAD = 8;

const heights = computed(() => {
  const found: number[] = [0];
  for (let k = 0; k <= 40; k++) {
    const x = (props.board.length * k) / 40;
    for (const v of [0, 0.5, 1]) {
      const z = underside(props.board, x, v);
      found.push(z, z + thickness(props.board, x, v));
    }
  }
  return { low: Math.min(...found), high: Math.max(...found) };
});
const tall = computed(() => (heights.value.high - heights.value.low) * sz.value + 2 * PAD);
const X = (x: number) => 6 + x * sx.value;
const Z = (z: number) => PAD + (heights.value.high - z) * sz.value;

function sideAt(v: number): string {
  const low: string[] = [];
  const high: string[] = [];
  for (let k = 0; k <= 40; k++) {
    const x = (props.board.length * k) / 40;
    const z = underside(props.board, x, v);
    low.push(`${X(x).toFixed(1)},${Z(z).toFixed(1)}`);
    high.unshift(`${X(x).toFixed(1)},${Z(z + thickness(props.board, x, v)).toFixed(1)}`);
  }
  return [...low, ...high].join(" ");
}
const near = computed(() => sideAt(0));
const far = computed(() => sideAt(1));

const slabs = computed(() =>
  props.pieces.map((p) => {
    const [low, high] = edges(props.board, (p.x0 + p.x1) / 2);
    const y = (low + high) / 2;
    const at = (x: number) => p.a * x + p.b * y + p.c;
    const corners = [
      [p.x0, at(p.x0)],
      [p.x1, at(p.x1)],
      [p.x1, at(p.x1) + p.flat],
      [p.x0, at(p.x0) + p.flat],
    ] as const;
    return corners.map(([x, z]) => `${X(x)},${Z(z)}`).join(" ");
  }),
);

/** Ends are drawn at their own scale, both alike, heights exaggerated less. */
const END_FACTOR = 2;
const ends = computed(() =>
  [0, props.board.length].map((x) => {
    const [y0, y1] = edges(props.board, x);
    const scale = 150 / Math.max(y1 - y0, 1);
    const low: string[] = [];
    const high: string[] = [];
    let top = 0;
    for (let k = 0; k <= 16; k++) {
      const v = k / 16;
      const z = underside(props.board, x, v);
      top = Math.max(top, z + thickness(props.board, x, v));
      low.push(`${(6 + v * 150).toFixed(1)},${(-(z * scale * END_FACTOR)).toFixed(1)}`);
      high.unshift(
        `${(6 + v * 150).toFixed(1)},${(-((z + thickness(props.board, x, v)) * scale * END_FACTOR)).toFixed(1)}`,
      );
    }
    const piece = props.pieces.find((p) => p.x0 <= x && x <= p.x1);
    const slab = piece
      ? [
          [0, 0],
          [1, 0],
          [1, piece.flat],
          [0, piece.flat],
        ]
          .map(([v, up]) => {
            const z = piece.a * x + piece.b * (y0 + v! * (y1 - y0)) + piece.c + up!;
            return `${(6 + v! * 150).toFixed(1)},${(-(z * scale * END_FACTOR)).toFixed(1)}`;
          })
          .join(" ")
      : "";
    return { points: [...low, ...high].join(" "), top: top * scale * END_FACTOR, slab };
  }),
);
</script>

<template>
  <div class="views">
    <figure class="side">
      <svg
        :width="width"
        :height="tall"
        role="img"
        :aria-label="$t('Side view, heights {factor} times true', { factor })"
      >
        <path :d="`M0 ${Z(0)}H${width}`" stroke="#12171d" stroke-width="1.5" />
        <polygon :points="far" :fill="colours[1]" fill-opacity=".55" />
        <polygon :points="near" :fill="colours[0]" stroke="#12171d" stroke-width="1" />
        <polygon v-for="(points, i) in slabs" :key="i" :points="points" class="slab" />
      </svg>
      <figcaption>
        {{
          pieces.length > 1
            ? $t("Side, heights ×{factor}. Blue is the flat board inside: {least} to {most}", {
                factor,
                least: showAbout(Math.min(...pieces.map((p) => p.flat)), system),
                most: showAbout(Math.max(...pieces.map((p) => p.flat)), system),
              })
            : $t("Side, heights ×{factor}. Blue is the flat board inside: {flat}", {
                factor,
                flat: showAbout(Math.min(...pieces.map((p) => p.flat)), system),
              })
        }}
      </figcaption>
    </figure>
    <figure v-for="(end, i) in ends" :key="i" class="end">
      <svg
        width="162"
        :height="Math.max(...ends.map((e) => e.top)) + 14"
        role="img"
        :aria-label="$t('End view, heights {factor} times true', { factor: END_FACTOR })"
      >
        <g :transform="`translate(0 ${Math.max(...ends.map((e) => e.top)) + 8})`">
          <path d="M0 0H162" stroke="#12171d" stroke-width="1.5" />
          <polygon :points="end.points" :fill="colours[0]" stroke="#12171d" />
          <polygon v-if="end.slab" :points="end.slab" class="slab" />
        </g>
      </svg>
      <figcaption>
        {{
          i
            ? $t("Far end, heights ×{factor}", { factor: END_FACTOR })
            : $t("Datum end, heights ×{factor}", { factor: END_FACTOR })
        }}
      </figcaption>
    </figure>
    <ThreeQuarterView
      class="three"
      :board="board"
      :pieces="pieces"
      :width="width"
      :factor="Math.max(1, Math.round(factor / 2))"
    />
  </div>
</template>

<style scoped>
.views {
  display: flex;
  flex-wrap: wrap;
  align-items: flex-end;
  gap: 0.6rem 1.6rem;
}
figure {
  margin: 0;
  max-width: 100%;
}
.side,
.three {
  flex-basis: 100%;
}
figcaption {
  font-size: 0.82rem;
  color: var(--ink-soft);
}
svg {
  display: block;
  overflow: visible;
}
.slab {
  fill: var(--chalk);
  fill-opacity: 0.35;
  stroke: var(--chalk-ink);
  stroke-width: 1.4;
}
</style>

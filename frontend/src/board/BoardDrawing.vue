<script setup lang="ts">
/**
 * One board, lengthwise and to scale: outline, grain, faults of the face shown, and what is chalked on it.
 * Drawn once for all stages. x runs from the datum end at the left; on face A the datum edge is below.
 */
import { computed, useId } from "vue";
import type { Board, Part } from "../api/client";
import { show, type System } from "../measure";
import { edges, extent, grainSeed, SOUND, woodColours, type Blank, type Item, type Segment } from "./geometry";

const props = withDefaults(
  defineProps<{
    board: Board;
    scale: number; // pixels per inch
    system: System;
    face?: "A" | "B";
    segments?: Segment[];
    parts?: Part[];
    chosen?: string; // a part's id
    chosenDefect?: number;
    faded?: boolean;
    choosable?: boolean; // parts can be chosen by hand or key
    areas?: { x0: number; x1: number; y0: number; y1: number }[]; // clear of faults
    cut?: number; // a crosscut tried here
  }>(),
  { face: "A", segments: () => [], parts: () => [], chosen: "", chosenDefect: -1, areas: () => [], cut: 0 },
);
const emit = defineEmits<{ part: [string]; place: [{ x: number; y: number }]; defect: [number] }>();

const id = useId();
const IN = 8128;
const MARGIN = 6;
const px = (ticks: number) => (ticks / IN) * props.scale;
const range = computed(() => extent(props.board));
const width = computed(() => px(props.board.length) + 2 * MARGIN);
const height = computed(() => px(range.value.high - range.value.low) + 2 * MARGIN);
const X = (ticks: number) => MARGIN + px(ticks);
const Y = (ticks: number) =>
  props.face === "A" ? MARGIN + px(range.value.high - ticks) : MARGIN + px(ticks - range.value.low);

const colours = computed(() => woodColours(props.board.species));
const outline = computed(() => {
  const s = props.board.stations;
  return [...s.map((p) => `${X(p.x)},${Y(p.y0)}`), ...[...s].reverse().map((p) => `${X(p.x)},${Y(p.y1)}`)].join(" ");
});

const grain = computed(() => {
  const random = grainSeed(props.board.id + props.board.species);
  const lines: string[] = [];
  const count = Math.max(5, Math.round(px(range.value.high - range.value.low) / 6));
  for (let i = 1; i < count; i++) {
    const v = (i + 0.7 * (random() - 0.5)) / count;
    const lift = (random() - 0.5) * 0.1;
    let path = "";
    for (let k = 0; k <= 12; k++) {
      const x = (props.board.length * k) / 12;
      const [low, high] = edges(props.board, x);
      const bend = v + lift * Math.sin((k / 12) * Math.PI * (1 + random() * 0.3));
      path += `${k ? "L" : "M"}${X(x).toFixed(1)} ${Y(low + (high - low) * bend).toFixed(1)}`;
    }
    lines.push(path);
  }
  return lines;
});

const faults = computed(() =>
  (props.board.defects ?? []).map((d, index) => {
    const x = X(Math.min(d.x0, d.x1));
    const y = Math.min(Y(d.y0), Y(d.y1));
    const w = Math.max(2, px(Math.abs(d.x1 - d.x0)));
    const h = Math.max(2, px(Math.abs(d.y1 - d.y0)));
    const here = d.face === "both" || d.face === props.face;
    let shape = "patch";
    if (d.kind.includes("knot") || d.kind === "hole") shape = "knot";
    else if (["check", "split", "shake", "pith"].includes(d.kind)) shape = "crack";
    else if (["wane", "bark"].includes(d.kind)) shape = "bark";
    let crack = `M${x} ${y + h / 2}`;
    for (let k = 1; k <= 6; k++) crack += `L${x + (w * k) / 6} ${y + h / 2 + (k % 2 ? -1 : 1) * Math.min(h / 2, 2.2)}`;
    const title = `${d.kind}, ${d.face === "both" ? "both faces" : "face " + d.face}, ${show(d.x0, props.system)} to ${show(d.x1, props.system)}`;
    return { index, x, y, w, h, here, shape, crack, title, sound: SOUND.includes(d.kind), kind: d.kind };
  }),
);

const lengths = computed(() => new Map(props.parts.map((p) => [p.id, p.length])));
const names = computed(() => new Map(props.parts.map((p) => [p.id, p.name || p.id])));

interface Chalked {
  key: string;
  points: string;
  cx: number;
  cy: number;
  angle: number;
  w: number;
  h: number;
  label: string;
  long: string;
  ids: string[];
  title: string;
  layers: number;
  splits: string;
  texts: { dx: number; w: number; label: string; long: string }[];
}

function name(item: Item): string {
  return item.part + item.n + (item.stave ? "·" + item.stave : "");
}
function label(blank: Blank): string {
  return blank.layers.map((layer) => layer.map(name).join("  ")).join(" ∕ ");
}

const chalked = computed<Chalked[]>(() =>
  props.segments.flatMap((segment, si) =>
    segment.strips.flatMap((strip, ti) =>
      strip.blanks.map((blank, bi) => {
        const line = (x: number) => segment.y0 + segment.slope * (x - segment.x0);
        const at = (x: number, h: number) => `${X(x)},${Y(line(x) + h)}`;
        const middle = (blank.x0 + blank.x1) / 2;
        const centre = (strip.y0 + strip.y1) / 2;
        const rise = Y(line(blank.x1)) - Y(line(blank.x0));
        const ids = [...new Set(blank.layers.flat().map((i) => i.part))];
        const w = px(blank.x1 - blank.x0);
        const first = blank.layers[0] ?? [];
        // Where a blank holds several parts end to end, the places they are cut apart.
        let splits = "";
        let x = blank.x0;
        const long = ids.map((p) => names.value.get(p) ?? p).join(" + ");
        const texts: Chalked["texts"] = [];
        if (blank.layers.length > 1 || first.length < 2) texts.push({ dx: 0, w, label: label(blank), long });
        else
          first.forEach((item, k) => {
            const end = k === first.length - 1 ? blank.x1 : x + (lengths.value.get(item.part) ?? 0) + IN / 8;
            if (k) splits += `M${X(x)} ${Y(line(x) + strip.y0)}L${X(x)} ${Y(line(x) + strip.y1)}`;
            texts.push({ dx: px((x + end) / 2 - middle), w: px(end - x), label: name(item), long: names.value.get(item.part) ?? "" });
            x = end;
          });
        const size = `${show(blank.x1 - blank.x0, props.system)} × ${show(strip.y1 - strip.y0, props.system)}`;
        return {
          key: `${si}-${ti}-${bi}`,
          points: [at(blank.x0, strip.y0), at(blank.x1, strip.y0), at(blank.x1, strip.y1), at(blank.x0, strip.y1)].join(" "),
          cx: X(middle),
          cy: Y(line(middle) + centre),
          angle: (Math.atan2(rise, w) * 180) / Math.PI,
          w,
          h: px(strip.y1 - strip.y0),
          label: label(blank),
          long,
          ids,
          title: `${label(blank)}: ${long}, blank ${size}` + (blank.layers.length > 1 ? `, resawn in ${blank.layers.length}` : ""),
          layers: blank.layers.length,
          splits,
          texts,
        };
      }),
    ),
  ),
);

const cuts = computed(() =>
  props.segments.flatMap((s) =>
    [s.x0, s.x1].map((x) => {
      const [low, high] = edges(props.board, x);
      return `M${X(x)} ${Y(low - IN / 4)}L${X(x)} ${Y(high + IN / 4)}`;
    }),
  ),
);

function placed(event: MouseEvent): void {
  const box = (event.currentTarget as SVGSVGElement).getBoundingClientRect();
  const x = ((event.clientX - box.left - MARGIN) / props.scale) * IN;
  const up = ((event.clientY - box.top - MARGIN) / props.scale) * IN;
  const y = props.face === "A" ? range.value.high - up : range.value.low + up;
  emit("place", { x: Math.round(x), y: Math.round(y) });
}
</script>

<template>
  <svg
    class="board"
    :class="{ faded }"
    :width="width"
    :height="height"
    role="img"
    :aria-label="`Board ${board.id}, ${board.species}, face ${face}`"
    @click="placed"
  >
    <defs>
      <clipPath :id="`${id}-clip`"><polygon :points="outline" /></clipPath>
      <pattern :id="`${id}-bad`" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="7" height="7" fill="#5b3a1e" fill-opacity=".16" />
        <path d="M0 0V7" stroke="#b3142a" stroke-width="2" />
      </pattern>
    </defs>
    <polygon :points="outline" :fill="colours[0]" />
    <g :clip-path="`url(#${id}-clip)`" fill="none" :stroke="colours[1]" stroke-opacity=".55">
      <path v-for="(line, i) in grain" :key="i" :d="line" :stroke-width="i % 3 ? 0.7 : 1.3" />
    </g>
    <g :clip-path="`url(#${id}-clip)`">
      <g v-for="f in faults" :key="f.index" class="fault" :class="{ other: !f.here, chosen: f.index === chosenDefect }" @click.stop="emit('defect', f.index)">
        <title>{{ f.title }}</title>
        <template v-if="f.shape === 'knot'">
          <ellipse :cx="f.x + f.w / 2" :cy="f.y + f.h / 2" :rx="f.w / 2" :ry="f.h / 2" fill="#6b4423" :fill-opacity="f.here ? 0.85 : 0.12" stroke="#4a2c12" :stroke-dasharray="f.here ? '' : '3 2'" />
          <ellipse v-if="f.here" :cx="f.x + f.w / 2" :cy="f.y + f.h / 2" :rx="f.w / 4" :ry="f.h / 4" fill="none" stroke="#c79a63" stroke-width=".8" />
        </template>
        <template v-else-if="f.shape === 'crack'">
          <rect :x="f.x" :y="f.y" :width="f.w" :height="f.h" :fill="`url(#${id}-bad)`" />
          <path :d="f.crack" fill="none" stroke="#2a1608" stroke-width="1.6" />
        </template>
        <rect v-else-if="f.shape === 'bark'" :x="f.x" :y="f.y" :width="f.w" :height="f.h" fill="#5b3a1e" :fill-opacity="f.here ? 0.8 : 0.12" stroke="#3b220d" stroke-dasharray="4 3" />
        <rect v-else :x="f.x" :y="f.y" :width="f.w" :height="f.h" :fill="f.kind === 'sapwood' ? '#fff6df' : '#57606b'" :fill-opacity="f.here ? 0.45 : 0.08" :stroke="colours[1]" :stroke-dasharray="f.here ? '2 3' : '3 2'" />
        <path v-if="!f.sound && f.shape !== 'crack'" :d="`M${f.x} ${f.y}l${f.w} ${f.h}m0 ${-f.h}l${-f.w} ${f.h}`" stroke="#b3142a" stroke-width="1.6" />
      </g>
    </g>
    <polygon :points="outline" fill="none" stroke="#12171d" stroke-width="1.4" />
    <rect v-for="(a, i) in areas" :key="`a${i}`" class="clear" :x="X(a.x0)" :y="Math.min(Y(a.y0), Y(a.y1))" :width="px(a.x1 - a.x0)" :height="px(a.y1 - a.y0)" />
    <path v-if="cut" class="try" :d="`M${X(cut)} 0V${height}`" />
    <g v-for="c in chalked" :key="c.key" class="chalked" :class="{ chosen: c.ids.includes(chosen), dim: chosen && !c.ids.includes(chosen) }" :tabindex="choosable ? 0 : undefined" :role="choosable ? 'button' : undefined" :aria-label="choosable ? c.title : undefined" @click.stop="emit('part', c.ids[0]!)" @keydown.enter.stop="emit('part', c.ids[0]!)">
      <title>{{ c.title }}</title>
      <polygon :points="c.points" />
      <path v-if="c.splits" :d="c.splits" class="split" />
      <g :transform="`translate(${c.cx} ${c.cy}) rotate(${c.angle})`">
        <path v-if="c.w > 60 && c.h > 15" class="arrow" :d="`M${-c.w / 2 + 6} ${c.h / 2 - 5}h${Math.min(28, c.w / 4)}m-5 -3l5 3l-5 3`" />
        <template v-for="(t, i) in c.texts" :key="i">
          <text v-if="t.w > 15 && c.h > 7" :x="t.dx" :font-size="Math.min(15, c.h * 0.62, (t.w / Math.max(3, t.label.length)) * 1.6)" text-anchor="middle" dominant-baseline="central">{{ t.label }}<tspan v-if="c.h > 17 && t.w > 8 * (t.label.length + t.long.length) + 70" class="long" dx="8">{{ t.long }}</tspan></text>
        </template>
      </g>
    </g>
    <path v-for="(cut, i) in cuts" :key="i" :d="cut" class="cut" />
    <slot :x="X" :y="Y" />
  </svg>
</template>

<style scoped>
.board {
  display: block;
  overflow: visible;
}
.faded {
  opacity: 0.45;
}
.clear {
  fill: var(--chalk);
  fill-opacity: 0.1;
  stroke: var(--chalk);
  stroke-width: 2;
  stroke-dasharray: 7 4;
}
.try {
  stroke: var(--crayon);
  stroke-width: 3;
}
.chalked {
  cursor: pointer;
}
.chalked polygon {
  fill: #fff;
  fill-opacity: 0.66;
  stroke: #12171d;
  stroke-width: 1;
}
.chalked .split {
  stroke: #12171d;
  stroke-width: 0.8;
  stroke-dasharray: 3 2;
}
.chalked text {
  font-weight: 720;
  font-stretch: 85%;
  fill: #12171d;
}
.chalked .long {
  font-weight: 480;
}
.chalked .arrow {
  fill: none;
  stroke: #12171d;
  stroke-width: 0.9;
}
.chalked:focus-visible polygon {
  stroke: var(--chalk);
  stroke-width: 3;
}
.chalked:focus {
  outline: none;
}
.chalked:hover polygon {
  fill-opacity: 0.85;
}
.chalked.chosen polygon {
  fill: var(--chalk);
  fill-opacity: 0.92;
  stroke: var(--chalk-ink);
  stroke-width: 2;
}
.chalked.chosen text {
  fill: #fff;
}
.chalked.chosen .arrow,
.chalked.chosen .split {
  stroke: #fff;
}
.chalked.dim polygon {
  fill-opacity: 0.4;
}
.cut {
  stroke: var(--crayon);
  stroke-width: 2;
  fill: none;
  pointer-events: none;
}
.fault {
  cursor: pointer;
}
.fault.chosen {
  outline: 3px solid var(--chalk);
}
</style>

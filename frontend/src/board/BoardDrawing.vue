<script setup lang="ts">
/**
 * One board, lengthwise and to scale: outline, grain, faults of the face shown, and what is chalked on it.
 * Drawn once for all stages. x runs from the datum end at the left; on face A the datum edge is below.
 */
import { computed, ref, useId } from "vue";
import type { Board, Part } from "../api/client";
import { useKeyPointer, type Pointing } from "../controls/keyPointer";
import { show, type System, TICKS_PER_INCH } from "../measure";
import FaultMark from "./FaultMark.vue";
import {
  edges,
  extent,
  grainSeed,
  itemName,
  MARGIN,
  placeAt,
  woodColours,
  type Blank,
  type Item,
  type Segment,
} from "./geometry";
import { t } from "../i18n/i18n";

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
    photographed?: boolean; // the face's photograph under it, where there is one
    draft?: { x: number; y: number }[]; // an outline being tapped
    pins?: string[]; // names of pieces that are pinned
    picked?: string; // name of a piece of the blank in hand
    forbidden?: { x0: number; x1: number; y0: number; y1: number }[]; // nothing may lie here
    movable?: boolean; // blanks can be taken in hand
    /** First pieces of the blanks in the order they are to keep: what is under a finger must stay where it is. */
    order?: string[];
    gone?: string[]; // names of pieces that went another way
    pointing?: Pointing; // what a tap on it, or Enter, does
    outlining?: boolean; // a tap is a corner of an outline, whatever lies there
  }>(),
  {
    face: "A",
    segments: () => [],
    order: () => [],
    gone: () => [],
    parts: () => [],
    chosen: "",
    chosenDefect: -1,
    areas: () => [],
    cut: 0,
    photographed: true,
    draft: () => [],
    pins: () => [],
    picked: "",
    forbidden: () => [],
    pointing: "",
  },
);
type Place = { x: number; y: number };
const emit = defineEmits<{
  part: [string];
  place: [Place];
  drawn: [Place, Place];
  defect: [number];
  pick: [Item];
  grab: [Item, PointerEvent];
}>();

const POINTS = t(". Arrow keys point, Enter marks");
const id = useId();
const svg = ref<SVGSVGElement>();
useKeyPointer(svg, () => props.pointing);
const IN = TICKS_PER_INCH;
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
  return [
    ...s.map((p) => `${X(p.x)},${Y(p.y0)}`),
    ...[...s].reverse().map((p) => `${X(p.x)},${Y(p.y1)}`),
  ].join(" ");
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

const photo = computed(() => {
  const shown = props.photographed ? props.board.photos.find((p) => p.face === props.face) : undefined;
  return shown ? `/api/pictures/${shown.picture}/straight` : "";
});
const zones = computed(() =>
  props.board.grain.zones.map((z) => ({
    word: z.figure,
    x: X(z.x0),
    y: Math.min(Y(z.y0), Y(z.y1)),
    w: px(z.x1 - z.x0),
    h: px(z.y1 - z.y0),
  })),
);
const traced = computed(() => props.draft.map((p) => `${X(p.x)},${Y(p.y)}`).join(" "));

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
  item: Item;
  pinned: boolean;
  picked: boolean;
  gone: boolean;
  title: string;
  layers: number;
  splits: string;
  texts: { dx: number; w: number; label: string; long: string }[];
}

function label(blank: Blank): string {
  return blank.layers.map((layer) => layer.map(itemName).join("  ")).join(" ∕ ");
}

const placeIn = (c: Chalked) => props.order.indexOf(c.key) + 1 || Infinity;
const chalked = computed<Chalked[]>(() => {
  const found = blanksOf();
  return props.order.length ? found.sort((a, b) => placeIn(a) - placeIn(b) || 0) : found;
});
const blanksOf = (): Chalked[] =>
  props.segments.flatMap((segment) =>
    segment.strips.flatMap((strip) =>
      strip.blanks.map((blank) => {
        const line = (x: number) => segment.y0 + segment.slope * (x - segment.x0);
        const at = (x: number, h: number) => `${X(x)},${Y(line(x) + h)}`;
        const middle = (blank.x0 + blank.x1) / 2;
        const centre = (strip.y0 + strip.y1) / 2;
        const rise = Y(line(blank.x1)) - Y(line(blank.x0));
        const ids = [...new Set(blank.layers.flat().map((i) => i.part))];
        const w = px(blank.x1 - blank.x0);
        const first = blank.layers[0] ?? [];
        const held = blank.layers.flat().map(itemName);
        const pinned = held.some((n) => props.pins.includes(n));
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
            texts.push({
              dx: px((x + end) / 2 - middle),
              w: px(end - x),
              label: itemName(item),
              long: names.value.get(item.part) ?? "",
            });
            x = end;
          });
        const size = `${show(blank.x1 - blank.x0, props.system)} × ${show(strip.y1 - strip.y0, props.system)}`;
        return {
          key: itemName(first[0]!),
          points: [
            at(blank.x0, strip.y0),
            at(blank.x1, strip.y0),
            at(blank.x1, strip.y1),
            at(blank.x0, strip.y1),
          ].join(" "),
          cx: X(middle),
          cy: Y(line(middle) + centre),
          angle: (Math.atan2(rise, w) * 180) / Math.PI,
          w,
          h: px(strip.y1 - strip.y0),
          label: label(blank),
          long,
          ids,
          item: first[0]!,
          pinned,
          picked: held.includes(props.picked),
          gone: held.every((n) => props.gone.includes(n)),
          title:
            t("{blank}: {long}, blank {size}", { blank: label(blank), long, size }) +
            (blank.layers.length > 1 ? t(", resawn in {layers}", { layers: blank.layers.length }) : "") +
            (pinned ? ", pinned" : "") +
            (held.every((n) => props.gone.includes(n)) ? t(", went another way") : ""),
          layers: blank.layers.length,
          splits,
          texts,
        };
      }),
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

function placeOf(event: MouseEvent): Place {
  return placeAt(
    (event.currentTarget as SVGSVGElement).getBoundingClientRect(),
    props.board,
    props.scale,
    props.face,
    event,
  );
}
/**
 * Where the pointer went down: far from where it comes up, something was drawn; otherwise the place
 * was tapped.
 */
let down: { at: Place; x: number; y: number } | undefined;
function pressed(event: PointerEvent): void {
  down = { at: placeOf(event), x: event.clientX, y: event.clientY };
}
const moved = (event: MouseEvent): boolean =>
  !!down && Math.hypot(event.clientX - down.x, event.clientY - down.y) > 8;
function placed(event: MouseEvent): void {
  const from = down;
  if (from && moved(event) && !props.outlining) emit("drawn", from.at, placeOf(event));
  else emit("place", placeOf(event));
  down = undefined;
}
/** What lies under it is not chosen by what is drawn over it. */
function over(event: MouseEvent): void {
  if (!props.outlining && !(props.pointing && moved(event))) return;
  event.stopPropagation();
  placed(event);
}
</script>

<template>
  <svg
    ref="svg"
    class="board"
    :class="{ faded }"
    :width="width"
    :height="height"
    :tabindex="pointing ? 0 : undefined"
    :role="pointing ? 'application' : choosable ? 'group' : 'img'"
    :aria-label="
      $t('Board {id}, {species}, face {face}', { id: board.id, species: board.species, face }) +
      (pointing ? POINTS : '')
    "
    @pointerdown="pressed"
    @click.capture="over"
    @click="placed"
  >
    <defs>
      <clipPath :id="`${id}-clip`"><polygon :points="outline" /></clipPath>
      <pattern
        :id="`${id}-bad`"
        width="7"
        height="7"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <rect width="7" height="7" fill="#5b3a1e" fill-opacity=".16" />
        <path d="M0 0V7" stroke="#b3142a" stroke-width="2" />
      </pattern>
    </defs>
    <polygon :points="outline" :fill="colours[0]" />
    <image
      v-if="photo"
      :href="photo"
      :x="X(0)"
      :y="MARGIN"
      :width="width - 2 * MARGIN"
      :height="height - 2 * MARGIN"
      preserveAspectRatio="none"
      :clip-path="`url(#${id}-clip)`"
    />
    <g v-else :clip-path="`url(#${id}-clip)`" fill="none" :stroke="colours[1]" stroke-opacity=".55">
      <path v-for="(line, i) in grain" :key="i" :d="line" :stroke-width="i % 3 ? 0.7 : 1.3" />
    </g>
    <g :clip-path="`url(#${id}-clip)`">
      <FaultMark
        v-for="(d, i) in board.defects"
        :key="i"
        :fault="d"
        :face="face"
        :system="system"
        :x="X"
        :y="Y"
        :line="colours[1]"
        :hatch="`url(#${id}-bad)`"
        :chosen="i === chosenDefect"
        @click.stop="emit('defect', i)"
      />
    </g>
    <g v-for="(z, i) in zones" :key="`z${i}`" class="zone">
      <rect :x="z.x" :y="z.y" :width="z.w" :height="z.h" />
      <text v-if="z.w > 60 && z.h > 12" :x="z.x + 5" :y="z.y + 12">{{ z.word }}</text>
    </g>
    <polygon :points="outline" fill="none" stroke="#12171d" stroke-width="1.4" />
    <polyline v-if="draft.length" class="draft" :points="traced" />
    <circle v-for="(p, i) in draft" :key="`d${i}`" class="draft" :cx="X(p.x)" :cy="Y(p.y)" r="4" />
    <rect
      v-for="(a, i) in areas"
      :key="`a${i}`"
      class="clear"
      :x="X(a.x0)"
      :y="Math.min(Y(a.y0), Y(a.y1))"
      :width="px(a.x1 - a.x0)"
      :height="px(a.y1 - a.y0)"
    />
    <path v-if="cut" class="try" :d="`M${X(cut)} 0V${height}`" />
    <g v-for="(f, i) in forbidden" :key="`f${i}`" class="forbidden">
      <title>{{ $t("nothing may lie here") }}</title>
      <rect
        :x="X(f.x0)"
        :y="Math.min(Y(f.y0), Y(f.y1))"
        :width="px(f.x1 - f.x0)"
        :height="px(f.y1 - f.y0)"
        :fill="`url(#${id}-bad)`"
      />
      <path :d="`M${X(f.x0)} ${Y(f.y0)}L${X(f.x1)} ${Y(f.y1)}M${X(f.x0)} ${Y(f.y1)}L${X(f.x1)} ${Y(f.y0)}`" />
    </g>
    <g
      v-for="c in chalked"
      :key="c.key"
      class="chalked"
      :class="{
        chosen: c.ids.includes(chosen),
        picked: c.picked,
        movable,
        dim: chosen && !c.ids.includes(chosen),
        gone: c.gone,
      }"
      :tabindex="choosable ? 0 : undefined"
      :role="choosable ? 'button' : undefined"
      :aria-label="choosable ? c.title : undefined"
      :aria-pressed="movable ? c.picked : undefined"
      @pointerdown="movable && emit('grab', c.item, $event)"
      @click.stop="
        emit('part', c.ids[0]!);
        emit('pick', c.item);
      "
      @keydown.enter.stop="
        emit('part', c.ids[0]!);
        emit('pick', c.item);
      "
    >
      <title>{{ c.title }}</title>
      <polygon :points="c.points" />
      <path v-if="c.splits" :d="c.splits" class="split" />
      <g :transform="`translate(${c.cx} ${c.cy}) rotate(${c.angle})`">
        <path
          v-if="c.w > 60 && c.h > 15"
          class="arrow"
          :d="`M${-c.w / 2 + 6} ${c.h / 2 - 5}h${Math.min(28, c.w / 4)}m-5 -3l5 3l-5 3`"
        />
        <template v-for="(line, i) in c.texts" :key="i">
          <text
            v-if="line.w > 15 && c.h > 7"
            :x="line.dx"
            :font-size="Math.min(15, c.h * 0.62, (line.w / Math.max(3, line.label.length)) * 1.6)"
            text-anchor="middle"
            dominant-baseline="central"
          >
            {{ line.label }}
            <tspan
              v-if="c.h > 17 && line.w > 8 * (line.label.length + line.long.length) + 70"
              class="long"
              dx="8"
            >
              {{ line.long }}
            </tspan>
          </text>
        </template>
        <path v-if="c.pinned" class="pin" :d="`M${c.w / 2 - 12} ${-c.h / 2 + 3}h7m-3.5 0v8m-4 0h8m-4 0v7`" />
      </g>
    </g>
    <path v-for="(line, i) in cuts" :key="i" :d="line" class="cut" />
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
  fill: color-mix(in srgb, var(--chalk) 26%, #fff);
  fill-opacity: 0.95;
  stroke: var(--chalk-ink);
  stroke-width: 2;
}
.chalked.gone polygon {
  fill-opacity: 0.25;
  stroke-dasharray: 4 4;
}
.chalked.gone text {
  text-decoration: line-through;
  opacity: 0.7;
}
.chalked.picked polygon {
  fill: var(--chalk);
  fill-opacity: 0.92;
  stroke: var(--chalk-ink);
  stroke-width: 2;
}
.chalked.picked text {
  fill: #fff;
}
.chalked.picked .arrow,
.chalked.picked .split,
.chalked.picked .pin {
  stroke: #fff;
}
.chalked.dim polygon {
  fill-opacity: 0.4;
}
.chalked.movable {
  cursor: grab;
}
/* What a finger meets decides whether it drags or scrolls: the shapes, not their group. */

.chalked.movable * {
  touch-action: none;
}
.chalked .pin {
  fill: none;
  stroke: var(--crayon-ink);
  stroke-width: 2.4;
}
.forbidden rect,
.forbidden path {
  stroke: var(--crayon);
  stroke-width: 1.5;
  fill-opacity: 0.9;
}
.cut {
  stroke: var(--crayon);
  stroke-width: 2;
  fill: none;
  pointer-events: none;
}
.zone rect {
  fill: none;
  stroke: #12171d;
  stroke-dasharray: 1 5;
  stroke-linecap: round;
}
.zone text {
  font-size: 11px;
  font-style: italic;
}
.zone {
  pointer-events: none;
}
.draft {
  fill: none;
  stroke: var(--crayon);
  stroke-width: 2;
}
</style>

<script setup lang="ts">
/**
 * A model or flat drawing as read: every part can be pointed at. Wheel or + − zooms, dragging or
 * arrows move.
 */
import { ElButton } from "element-plus";
import { computed, ref, watch } from "vue";
import type { View } from "../../api/client";
import { shaded, woodColours } from "../../board/geometry";

const props = defineProps<{
  views: View[];
  chosen: Set<string>;
  species: (ref: string) => string;
  names: (ref: string) => string;
  parts?: Map<string, unknown>;
  doubtful?: Set<string>;
}>();
const emit = defineEmits<{ choose: [string] }>();

const at = ref(0);
const view = computed(() => props.views[Math.min(at.value, props.views.length - 1)]);
const frame = ref({ x: 0, y: 0, w: 1, h: 1 });
const pad = computed(() => 0.06 * Math.max(view.value?.width ?? 1, view.value?.height ?? 1));
function whole(): void {
  const v = view.value;
  if (v)
    frame.value = { x: -pad.value, y: -pad.value, w: v.width + 2 * pad.value, h: v.height + 2 * pad.value };
}
watch(view, whole, { immediate: true });

const picture = ref<SVGSVGElement>();
function zoom(by: number, mx = 0.5, my = 0.5): void {
  const f = frame.value;
  const w = Math.min(Math.max(f.w * by, (view.value?.width ?? 1) / 200), (view.value?.width ?? 1) * 6);
  const h = (w / f.w) * f.h;
  frame.value = { x: f.x + (f.w - w) * mx, y: f.y + (f.h - h) * my, w, h };
}
function wheel(event: WheelEvent): void {
  const box = picture.value!.getBoundingClientRect();
  zoom(
    event.deltaY > 0 ? 1.15 : 1 / 1.15,
    (event.clientX - box.left) / box.width,
    (event.clientY - box.top) / box.height,
  );
}
let held: { x: number; y: number } | null = null;
function move(event: PointerEvent): void {
  if (!held || !(event.buttons & 1)) return;
  const box = picture.value!.getBoundingClientRect();
  const per = Math.max(frame.value.w / box.width, frame.value.h / box.height);
  frame.value = {
    ...frame.value,
    x: frame.value.x - (event.clientX - held.x) * per,
    y: frame.value.y - (event.clientY - held.y) * per,
  };
  held = { x: event.clientX, y: event.clientY };
}
function key(event: KeyboardEvent): void {
  const step = 0.1;
  const f = frame.value;
  const moves: Record<string, () => void> = {
    "+": () => zoom(1 / 1.25),
    "=": () => zoom(1 / 1.25),
    "-": () => zoom(1.25),
    ArrowLeft: () => (frame.value = { ...f, x: f.x - f.w * step }),
    ArrowRight: () => (frame.value = { ...f, x: f.x + f.w * step }),
    ArrowUp: () => (frame.value = { ...f, y: f.y - f.h * step }),
    ArrowDown: () => (frame.value = { ...f, y: f.y + f.h * step }),
    Home: whole,
  };
  const act = moves[event.key];
  if (!act) return;
  event.preventDefault();
  event.stopPropagation();
  act();
}
const stroke = computed(() => frame.value.w / 700);
function points(ring: number[][]): string {
  return ring.map(([x, y]) => `${x},${y}`).join(" ");
}
</script>

<template>
  <div class="drawing">
    <div class="bar">
      <template v-if="views.length > 1">
        <ElButton
          v-for="(v, i) in views"
          :key="v.name"
          class="act quiet view"
          :class="{ on: i === at }"
          @click="at = i"
        >
          {{ v.name }}
        </ElButton>
      </template>
      <span class="grow" />
      <ElButton class="act quiet" :aria-label="$t('Smaller')" @click="zoom(1.25)">−</ElButton>
      <ElButton class="act quiet" :aria-label="$t('Larger')" @click="zoom(1 / 1.25)">+</ElButton>
      <ElButton class="act quiet" @click="whole">{{ $t("Whole") }}</ElButton>
    </div>
    <svg
      v-if="view"
      ref="picture"
      class="picture"
      tabindex="0"
      :viewBox="`${frame.x} ${frame.y} ${frame.w} ${frame.h}`"
      :aria-label="$t('{name}; + and − zoom, arrows move', { name: view.name })"
      role="img"
      @wheel.prevent="wheel"
      @keydown="key"
      @pointerdown="held = { x: $event.clientX, y: $event.clientY }"
      @pointerup="held = null"
      @pointermove="move"
    >
      <polyline
        v-for="(line, i) in view.lines"
        :key="`l${i}`"
        :points="points(line)"
        class="line"
        :stroke-width="stroke"
      />
      <polygon
        v-for="(s, i) in view.shapes"
        :key="i"
        :points="points(s.outline)"
        class="shape"
        :class="{
          chosen: chosen.has(s.ref),
          left: parts && !parts.has(s.ref),
          doubtful: doubtful?.has(s.ref),
        }"
        :data-ref="s.ref"
        :fill="shaded(woodColours(species(s.ref))[0], s.shade)"
        :stroke-width="chosen.has(s.ref) ? stroke * 3 : stroke"
        @click="emit('choose', s.ref)"
      >
        <title>{{ names(s.ref) }}</title>
      </polygon>
      <text
        v-for="(w, i) in view.words"
        :key="`w${i}`"
        :x="w.at[0]"
        :y="w.at[1]"
        class="words"
        :font-size="Math.max(stroke * 9, view.width / 90)"
      >
        {{ w.text }}
      </text>
    </svg>
  </div>
</template>

<style scoped>
/* What is no part: a frame, a hole. It is drawn, and can be pointed at along its line. */
.left {
  fill: none;
  stroke: var(--ink-soft);
  stroke-dasharray: 6 4;
  vector-effect: non-scaling-stroke;
}
.drawing {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  border-bottom: 1px solid var(--ink-faint);
}
.grow {
  flex: 1;
}
.view.on {
  box-shadow: inset 0 -5px 0 var(--chalk);
}
.picture {
  width: 100%;
  height: clamp(20rem, 58vh, 46rem);
  touch-action: none;
  cursor: grab;
  background:
    linear-gradient(var(--plaster-deep) 1px, transparent 1px) 0 0 / 100% 32px,
    var(--paper);
}
.line {
  fill: none;
  stroke: var(--steel);
}
.shape {
  stroke: var(--bark);
  stroke-linejoin: round;
  cursor: pointer;
}
.shape:hover {
  stroke: var(--chalk);
}
.shape.doubtful {
  stroke: var(--crayon-ink);
  stroke-dasharray: 8 4;
  vector-effect: non-scaling-stroke;
}
.shape.chosen {
  stroke: var(--chalk);
  fill: var(--chalk-wash);
}
.words {
  fill: var(--ink-soft);
  pointer-events: none;
}
</style>

<script setup lang="ts">
/** One board: its drawing to tap faults on, its measures, its warp. Every change is an edit of its own. */
import { ElMessage } from "element-plus";
import { computed, nextTick, ref, watch } from "vue";
import type { Board, Defect, Station } from "../../api/client";
import { useProject } from "../../api/project";
import BoardDrawing from "../../board/BoardDrawing.vue";
import BoardRuler from "../../board/BoardRuler.vue";
import { edges, SOUND, UNSOUND } from "../../board/geometry";
import WarpSketch from "../../board/WarpSketch.vue";
import Len from "../../controls/Len.vue";
import MeasureField from "../../controls/MeasureField.vue";

const props = defineProps<{ board: Board; width: number }>();
const emit = defineEmits<{ renamed: [string] }>();
const { project, edit } = useProject();
const system = computed(() => project.value!.system);
const face = ref<"A" | "B">("A");
const kind = ref("tight-knot");
const chosen = ref(-1);
const scale = computed(() => Math.min(26, (props.width - 14) / (props.board.length / 8128)));
const defects = computed(() => props.board.defects ?? []);
watch(() => props.board.id, () => (chosen.value = -1));

function put(what: string, values: Partial<Board>): void {
  void edit({ label: `${what} of ${props.board.id}`, put_boards: [{ ...props.board, ...values, was: props.board.id }] });
}
function rename(event: Event): void {
  const input = event.target as HTMLInputElement;
  const id = input.value.trim();
  if (!id || project.value!.boards.some((b) => b.id === id && b.id !== props.board.id)) {
    ElMessage({ type: "error", message: id ? `The mark '${id}' is taken; every mark once` : "A board needs a mark" });
    input.value = props.board.id;
    return;
  }
  put("mark", { id });
  emit("renamed", id);
}
function price(event: Event): void {
  const input = event.target as HTMLInputElement;
  const value = Number(input.value.replace(",", "."));
  if (Number.isFinite(value) && value >= 0) put("price", { price: value });
  else {
    ElMessage({ type: "error", message: `'${input.value}' is no price; a figure such as 61.50` });
    input.value = String(props.board.price);
  }
}
function setLength(length: number): void {
  const kept = props.board.stations.filter((s, i) => i === 0 || s.x < length);
  const last = props.board.stations.at(-1)!;
  const inner = kept.filter((s) => s.x < length && s.x !== last.x);
  put("length", { length, stations: [...inner, { ...last, x: length }] });
}
function station(i: number, values: Partial<Station>): void {
  put("measures", { stations: props.board.stations.map((s, k) => (k === i ? { ...s, ...values } : s)) });
}
function addStation(): void {
  const s = props.board.stations;
  let at = 0;
  for (let i = 1; i < s.length; i++) if (s[i]!.x - s[i - 1]!.x > s[at + 1]!.x - s[at]!.x) at = i - 1;
  const [a, b] = [s[at]!, s[at + 1]!];
  const mid = (p: number, q: number) => Math.round((p + q) / 2);
  const between = { x: mid(a.x, b.x), y0: mid(a.y0, b.y0), y1: mid(a.y1, b.y1), t0: mid(a.t0, b.t0), t1: mid(a.t1, b.t1) };
  put("a place measured", { stations: [...s.slice(0, at + 1), between, ...s.slice(at + 1)] });
}
async function tap(place: { x: number; y: number }): Promise<void> {
  const half = Math.round(8128 * 0.5);
  const long = ["check", "split", "shake", "pith", "sapwood", "wane"].includes(kind.value) ? 6 * half : half;
  const [low, high] = edges(props.board, Math.min(Math.max(place.x, 0), props.board.length));
  if (place.x < 0 || place.x > props.board.length || place.y < low || place.y > high) return;
  const made: Defect = {
    kind: kind.value,
    face: ["check", "split", "shake", "pith", "loose-knot", "hole"].includes(kind.value) ? "both" : face.value,
    x0: Math.max(0, place.x - long),
    x1: Math.min(props.board.length, place.x + long),
    y0: place.y - half / 2,
    y1: place.y + half / 2,
  };
  put(`a ${kind.value}`, { defects: [...defects.value, made] });
  await nextTick();
  chosen.value = defects.value.length - 1;
}
/** Without a pointer: one in the middle, to be given its figures. */
function tapMiddle(): void {
  const x = Math.round(props.board.length / 2);
  const [low, high] = edges(props.board, x);
  void tap({ x, y: Math.round((low + high) / 2) });
}
function defect(i: number, values: Partial<Defect>): void {
  put(defects.value[i]!.kind, { defects: defects.value.map((d, k) => (k === i ? { ...d, ...values } : d)) });
}
function nudge(i: number, dx: number, dy: number): void {
  const d = defects.value[i]!;
  defect(i, { x0: d.x0 + dx, x1: d.x1 + dx, y0: d.y0 + dy, y1: d.y1 + dy });
}
function dropDefect(i: number): void {
  chosen.value = -1;
  put("a fault less", { defects: defects.value.filter((_, k) => k !== i) });
}
const NUDGE = computed(() => (system.value.startsWith("in") || system.value === "ft-in" ? 8128 / 4 : 1600));
</script>

<template>
  <div class="editor">
    <div class="faces">
      <button class="act" :class="{ on: face === 'A' }" @click="face = 'A'">Face A, up</button>
      <button class="act" :class="{ on: face === 'B' }" @click="face = 'B'">Face B, turned over</button>
      <label class="field kind"><span>Tap the board to mark a</span>
        <select v-model="kind" class="line-input">
          <optgroup label="sound"><option v-for="k in SOUND" :key="k">{{ k }}</option></optgroup>
          <optgroup label="unsound: lies in no part"><option v-for="k in UNSOUND" :key="k">{{ k }}</option></optgroup>
        </select>
      </label>
    </div>
    <div class="drawing">
      <BoardRuler :length="board.length" :scale="scale" :system="system" />
      <BoardDrawing :board="board" :scale="scale" :system="system" :face="face" :chosen-defect="chosen" @place="tap" @defect="chosen = $event" />
    </div>
    <div v-for="(d, i) in defects" v-show="chosen === i" :key="i" class="fault">
      <b>{{ d.kind }}</b>
      <div class="nudges" role="group" aria-label="Move the fault">
        <button class="act" aria-label="Toward the datum end" @click="nudge(i, -NUDGE, 0)">←</button>
        <button class="act" aria-label="Toward the far end" @click="nudge(i, NUDGE, 0)">→</button>
        <button class="act" aria-label="Up" @click="nudge(i, 0, face === 'A' ? NUDGE : -NUDGE)">↑</button>
        <button class="act" aria-label="Down" @click="nudge(i, 0, face === 'A' ? -NUDGE : NUDGE)">↓</button>
      </div>
      <label class="field"><span>On</span>
        <select class="line-input" :value="d.face" @change="defect(i, { face: ($event.target as HTMLSelectElement).value as Defect['face'] })"><option value="A">face A</option><option value="B">face B</option><option value="both">both faces</option></select>
      </label>
      <MeasureField label="From" :system="system" :model-value="d.x0" signed @update:model-value="defect(i, { x0: $event })" />
      <MeasureField label="to" :system="system" :model-value="d.x1" signed @update:model-value="defect(i, { x1: $event })" />
      <MeasureField label="Up from" :system="system" :model-value="d.y0" signed @update:model-value="defect(i, { y0: $event })" />
      <MeasureField label="to " :system="system" :model-value="d.y1" signed @update:model-value="defect(i, { y1: $event })" />
      <button class="act" @click="dropDefect(i)">Remove</button>
    </div>
    <div class="faults">
      <button v-for="(d, i) in defects" :key="i" class="act" :class="{ on: chosen === i }" :aria-pressed="chosen === i" @click="chosen = chosen === i ? -1 : i">{{ d.kind }} at <Len :ticks="d.x0" :system="system" bare nearest /></button>
      <button class="act quiet" @click="tapMiddle">Mark a {{ kind }} by its figures</button>
    </div>

    <slot />

    <div class="fields">
      <label class="field"><span>Mark</span><input class="line-input" :value="board.id" @change="rename" /></label>
      <label class="field"><span>Wood</span><input class="line-input" :value="board.species" @change="put('wood', { species: ($event.target as HTMLInputElement).value.trim() || board.species })" /></label>
      <label class="field"><span>Bought as</span>
        <select class="line-input" :value="board.quarter" @change="put('quarter', { quarter: ($event.target as HTMLSelectElement).value })">
          <option value="">by its thickness</option><option v-for="q in ['4/4', '5/4', '6/4', '8/4', '10/4', '12/4', '16/4']" :key="q">{{ q }}</option>
        </select>
      </label>
      <label class="field"><span>Price</span><input class="line-input" inputmode="decimal" :value="board.price" @change="price" /></label>
      <MeasureField label="Length" :system="system" :model-value="board.length" @update:model-value="setLength" />
      <label class="field grow"><span>Note</span><input class="line-input" :value="board.note" @change="put('note', { note: ($event.target as HTMLInputElement).value })" /></label>
    </div>
    <div class="fields">
      <div class="warp"><WarpSketch kind="bow" /><MeasureField label="Bow, under its middle" :system="system" signed :model-value="board.warp?.bow ?? 0" @update:model-value="put('bow', { warp: { bow: $event, cup: board.warp?.cup ?? 0, twist: board.warp?.twist ?? 0 } })" /></div>
      <div class="warp"><WarpSketch kind="cup" /><MeasureField label="Cup, across" :system="system" signed :model-value="board.warp?.cup ?? 0" @update:model-value="put('cup', { warp: { bow: board.warp?.bow ?? 0, cup: $event, twist: board.warp?.twist ?? 0 } })" /></div>
      <div class="warp"><WarpSketch kind="twist" /><MeasureField label="Twist, fourth corner" :system="system" signed :model-value="board.warp?.twist ?? 0" @update:model-value="put('twist', { warp: { bow: board.warp?.bow ?? 0, cup: board.warp?.cup ?? 0, twist: $event } })" /></div>
    </div>
    <h3>Measured at</h3>
    <p class="soft small">Edges are heights above a straight line along the datum edge; crook shows in them. A minus sign means the other way.</p>
    <div class="stations">
      <div v-for="(s, i) in board.stations" :key="i" class="station">
        <MeasureField :label="i === 0 ? 'Datum end' : i === board.stations.length - 1 ? 'Far end' : 'At'" :system="system" :model-value="s.x" @update:model-value="i && i < board.stations.length - 1 && station(i, { x: $event })" />
        <MeasureField label="Datum edge" :system="system" signed :model-value="s.y0" @update:model-value="station(i, { y0: $event })" />
        <MeasureField label="Far edge" :system="system" signed :model-value="s.y1" @update:model-value="station(i, { y1: $event })" />
        <MeasureField label="Thick, datum edge" :system="system" :model-value="s.t0" @update:model-value="station(i, { t0: $event })" />
        <MeasureField label="Thick, far edge" :system="system" :model-value="s.t1" @update:model-value="station(i, { t1: $event })" />
        <button v-if="i && i < board.stations.length - 1" class="act" :aria-label="`Remove the place at ${i}`" @click="put('a place less', { stations: board.stations.filter((_, k) => k !== i) })">×</button>
      </div>
    </div>
    <button class="act" @click="addStation">Measure one more place</button>
  </div>
</template>

<style scoped>
.editor {
  display: flex;
  flex-direction: column;
  gap: 1rem;
  min-width: 0;
}
.faces {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: flex-end;
}
.kind {
  margin-left: auto;
  min-width: 12rem;
}
.drawing {
  overflow-x: auto;
  overflow-y: hidden;
  padding-bottom: 4px;
  cursor: crosshair;
}
.fault {
  display: flex;
  flex-wrap: wrap;
  gap: 0.7rem;
  align-items: flex-end;
  padding: 0.7rem;
  background: var(--chalk-wash);
  border-left: 6px solid var(--chalk);
}
.fault .field,
.fault :deep(.measure) {
  width: 7rem;
}
.nudges {
  display: flex;
  gap: 0.3rem;
}
.small {
  font-size: 0.88rem;
}
.faults {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(9.5rem, 1fr));
  gap: 0.9rem 1.1rem;
  align-items: end;
}
.fields .grow {
  grid-column: span 2;
}
.stations {
  display: flex;
  flex-direction: column;
  gap: 0.7rem;
}
.station {
  display: grid;
  grid-template-columns: repeat(5, minmax(0, 8rem)) 48px;
  gap: 0.8rem;
  align-items: end;
}
@media (max-width: 640px) {
  .kind {
    margin-left: 0;
    flex: 1 1 100%;
  }
  .station {
    grid-template-columns: repeat(2, minmax(0, 1fr));
    border-bottom: 1px solid var(--ink-faint);
    padding-bottom: 0.8rem;
  }
  .fields {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
}
</style>

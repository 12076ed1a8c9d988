<script setup lang="ts">
/** One board: its drawing to tap faults on, its measures, its warp. Every change is an edit of its own. */
import { ElButton, ElMessage } from "element-plus";
import { computed, nextTick, ref, watch } from "vue";
import type { Board, Defect, Schemas } from "../../api/client";
import { useProject } from "../../api/project";
import BoardDrawing from "../../board/BoardDrawing.vue";
import BoardRuler from "../../board/BoardRuler.vue";
import { crossesItself, edges, SOUND, UNSOUND } from "../../board/geometry";
import { plainFault } from "../../board/make";
import WarpSketch from "../../board/WarpSketch.vue";
import Len from "../../controls/Len.vue";
import MeasureField from "../../controls/MeasureField.vue";
import { isMetric, TICKS_PER_INCH, TICKS_PER_MM } from "../../measure";
import FaultBar from "./FaultBar.vue";
import GrainPanel from "./GrainPanel.vue";
import InstrumentBar from "./InstrumentBar.vue";
import MoisturePanel from "./MoisturePanel.vue";
import PhotoSheet from "./PhotoSheet.vue";
import StationTable from "./StationTable.vue";
import { FIGURES } from "../../board/figures";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import { t } from "../../i18n/i18n";

type Place = { x: number; y: number };
const props = defineProps<{ board: Board; width: number; look?: Schemas["LookBody"] }>();
const emit = defineEmits<{ renamed: [string] }>();
const { project, edit } = useProject();
const system = computed(() => project.value!.system);
const face = ref<"A" | "B">("A");
const kind = ref("tight-knot");
const outlined = ref(false);
const traced = ref<Place[]>([]);
const chosen = ref(-1);
const closer = ref(1);
const photographed = ref(true);
const photographing = ref(false);
const fitted = computed(() => Math.min(26, (props.width - 14) / (props.board.length / TICKS_PER_INCH)));
const scale = computed(() => Math.min(60, fitted.value * closer.value));
const defects = computed(() => props.board.defects);
const photo = computed(() => props.board.photos.find((p) => p.face === face.value));
const warp = computed(() => props.look?.warp ?? props.board.warp);
watch(
  () => props.board.id,
  () => {
    chosen.value = -1;
    traced.value = [];
  },
);

function put(what: string, values: Partial<Board>): void {
  void edit({
    label: t("{what} of {name}", { what, name: props.board.id }),
    put_boards: [{ ...props.board, ...values, was: props.board.id }],
  });
}
function rename(event: Event): void {
  const input = event.target as HTMLInputElement;
  const id = input.value.trim();
  if (!id || project.value!.boards.some((b) => b.id === id && b.id !== props.board.id)) {
    ElMessage({
      type: "error",
      message: id ? t("The mark '{id}' is taken; every mark once", { id }) : t("A board needs a mark"),
    });
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
    ElMessage({
      type: "error",
      message: t("'{input}' is no price; a figure such as 61.50", { input: input.value }),
    });
    input.value = String(props.board.price);
  }
}
function setLength(length: number): void {
  const kept = props.board.stations.filter((s, i) => i === 0 || s.x < length);
  const last = props.board.stations.at(-1)!;
  const inner = kept.filter((s) => s.x < length && s.x !== last.x);
  put("length", { length, stations: [...inner, { ...last, x: length }] });
}
function bend(values: Partial<Board["warp"]>): void {
  put("warp", { warp: { ...props.board.warp, ...values } });
}

// ---- faults and figure, tapped or drawn ------------------------------------------------------------
const through = (k: string): boolean =>
  ["check", "split", "shake", "pith", "loose-knot", "hole", "metal"].includes(k);
function mark(bounds: Pick<Defect, "x0" | "x1" | "y0" | "y1">, points: Place[] = []): void {
  const figure = FIGURES.find((f) => f === kind.value);
  if (figure) {
    put("figure", {
      grain: { ...props.board.grain, zones: [...props.board.grain.zones, { figure, ...bounds }] },
    });
    return;
  }
  const outline: Partial<Defect> = points.length
    ? { shape: "outline", points: points.map((p) => [p.x, p.y]) }
    : {};
  put(`a ${kind.value}`, {
    defects: [
      ...defects.value,
      plainFault(kind.value, through(kind.value) ? "both" : face.value, bounds, outline),
    ],
  });
  void nextTick(() => (chosen.value = defects.value.length - 1));
}
const inside = (p: Place): boolean => {
  const [low, high] = edges(props.board, Math.min(Math.max(p.x, 0), props.board.length));
  return p.x >= 0 && p.x <= props.board.length && p.y >= low && p.y <= high;
};
function tap(place: Place): void {
  if (outlined.value) {
    traced.value.push(place);
    return;
  }
  if (!inside(place)) return;
  const half = Math.round(TICKS_PER_INCH / 2);
  const long = FIGURES.some((f) => f === kind.value)
    ? 20 * half
    : ["check", "split", "shake", "pith", "sapwood", "wane", "bark"].includes(kind.value)
      ? 6 * half
      : half;
  const wide = long > 6 * half ? 3 * half : long === half ? half : half / 2;
  mark({
    x0: Math.max(0, place.x - long),
    x1: Math.min(props.board.length, place.x + long),
    y0: place.y - wide,
    y1: place.y + wide,
  });
}
function drawn(a: Place, b: Place): void {
  if (outlined.value || (!inside(a) && !inside(b))) return;
  const clamp = (x: number) => Math.min(Math.max(0, x), props.board.length);
  mark({
    x0: clamp(Math.min(a.x, b.x)),
    x1: clamp(Math.max(a.x, b.x)),
    y0: Math.min(a.y, b.y),
    y1: Math.max(a.y, b.y),
  });
}
function closeOutline(): void {
  const points = traced.value;
  if (crossesItself(points)) {
    ElMessage({
      type: "error",
      message: t("The outline crosses itself. Take its last corners back and go round once."),
      duration: 6000,
    });
    return;
  }
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)];
  mark({ x0: Math.min(...xs), x1: Math.max(...xs), y0: Math.min(...ys), y1: Math.max(...ys) }, points);
  traced.value = [];
  outlined.value = false;
}
/** Without a pointer: one in the middle, to be given its figures. */
function tapMiddle(): void {
  const x = Math.round(props.board.length / 2);
  const [low, high] = edges(props.board, x);
  tap({ x, y: Math.round((low + high) / 2) });
}
function defect(i: number, values: Partial<Defect>): void {
  put(defects.value[i]!.kind, { defects: defects.value.map((d, k) => (k === i ? { ...d, ...values } : d)) });
}
function dropDefect(i: number): void {
  chosen.value = -1;
  put(t("a fault less"), { defects: defects.value.filter((_, k) => k !== i) });
}
const step = computed(() => (isMetric(system.value) ? TICKS_PER_MM : TICKS_PER_INCH / 64));
const flatWarp = computed(() =>
  (["bow", "cup", "twist"] as const).filter((k) => Math.abs(warp.value[k]) >= step.value),
);
const QUARTERS = ["4/4", "5/4", "6/4", "8/4", "10/4", "12/4", "16/4"];
</script>

<template>
  <div class="editor">
    <div class="faces">
      <ElButton class="act" :class="{ on: face === 'A' }" @click="face = 'A'">{{
        $t("Face A, up")
      }}</ElButton>
      <ElButton class="act" :class="{ on: face === 'B' }" @click="face = 'B'">{{
        $t("Face B, turned over")
      }}</ElButton>
      <ElButton class="act quiet" :aria-pressed="closer > 1" @click="closer = closer === 1 ? 4 : 1">
        {{ closer > 1 ? $t("Whole board") : $t("Closer") }}
      </ElButton>
      <ElButton class="act quiet" @click="photographing = true">
        {{ photo ? $t("Another photograph") : $t("Photograph it") }}
      </ElButton>
      <ElButton
        v-if="photo"
        class="act quiet"
        :aria-pressed="photographed"
        @click="photographed = !photographed"
      >
        {{ photographed ? $t("Hide the photograph") : $t("Show the photograph") }}
      </ElButton>
      <ChoiceField
        v-model="kind"
        class="kind"
        :label="$t('Tap the board, or draw across it, to mark')"
        :groups="[
          { label: $t('sound'), options: SOUND.map((k) => [k, k]) },
          { label: $t('unsound: lies in no part'), options: UNSOUND.map((k) => [k, k]) },
          { label: 'figure', options: FIGURES.map((k) => [k, `${k} grain`]) },
        ]"
      />
    </div>
    <div class="drawing" tabindex="0" role="region" :aria-label="$t('Drawing of {id}', { id: board.id })">
      <BoardRuler :length="board.length" :scale="scale" :system="system" />
      <BoardDrawing
        :board="board"
        :scale="scale"
        :system="system"
        :face="face"
        :chosen-defect="chosen"
        :photographed="photographed"
        :draft="traced"
        pointing="tap"
        :outlining="outlined"
        @place="tap"
        @drawn="drawn"
        @defect="chosen = $event"
      />
    </div>
    <p v-if="outlined" class="tracing">
      <b>{{ $t("Tap round the {kind}.", { kind }) }}</b>
      {{ $t("{traced} corners.", { traced: traced.length }) }}
      <ElButton class="act lead" :disabled="traced.length < 3" @click="closeOutline">{{
        $t("Close it")
      }}</ElButton>
      <ElButton class="act" :disabled="!traced.length" @click="traced.pop()">{{
        $t("Take one back")
      }}</ElButton>
      <ElButton
        class="act"
        @click="
          traced = [];
          outlined = false;
        "
      >
        {{ $t("Leave it") }}
      </ElButton>
    </p>
    <p v-for="i in look?.outside ?? []" :key="`o${i}`" class="note">
      {{ $t("The {kind} at", { kind: defects[i]?.kind }) }}
      <Len :ticks="defects[i]?.x0 ?? 0" :system="system" nearest />
      {{ $t("lies wholly off the board. Move it on, or remove it.") }}
    </p>
    <FaultBar
      v-if="defects[chosen]"
      :fault="defects[chosen]!"
      :face="face"
      :system="system"
      @put="defect(chosen, $event)"
      @remove="dropDefect(chosen)"
    />
    <div class="faults">
      <ElButton
        v-for="(d, i) in defects"
        :key="i"
        class="act"
        :class="{ on: chosen === i }"
        :aria-pressed="chosen === i"
        @click="chosen = chosen === i ? -1 : i"
      >
        {{ $t("{kind} at", { kind: d.kind }) }} <Len :ticks="d.x0" :system="system" bare nearest />
      </ElButton>
      <ElButton class="act quiet" @click="tapMiddle">{{
        $t("Mark a {kind} by its figures", { kind })
      }}</ElButton>
      <ElButton
        v-if="!outlined && !FIGURES.some((f) => f === kind)"
        class="act quiet"
        @click="outlined = true"
      >
        {{ $t("Draw its outline") }}
      </ElButton>
    </div>

    <slot />

    <div class="fields">
      <label class="field"
        ><span>{{ $t("Mark") }}</span
        ><input class="line-input" :value="board.id" @change="rename"
      /></label>
      <label class="field"
        ><span>{{ $t("Wood") }}</span
        ><input
          class="line-input"
          :value="board.species"
          @change="
            put('wood', { species: ($event.target as HTMLInputElement).value.trim() || board.species })
          "
      /></label>
      <ChoiceField
        :label="$t('Bought as')"
        :options="[['', $t('by its thickness')], ...QUARTERS.map((q) => [q, q] as const)]"
        :model-value="board.quarter"
        @update:model-value="put('quarter', { quarter: $event })"
      />
      <label class="field"
        ><span>{{ $t("Price") }}</span
        ><input class="line-input" inputmode="decimal" :value="board.price" @change="price"
      /></label>
      <MeasureField
        :label="$t('Length')"
        :system="system"
        :model-value="board.length"
        @update:model-value="setLength"
      />
      <label class="field grow"
        ><span>{{ $t("Note") }}</span
        ><input
          class="line-input"
          :value="board.note"
          @change="put('note', { note: ($event.target as HTMLInputElement).value })"
      /></label>
    </div>
    <InstrumentBar :board="board" @put="put" />
    <p v-if="board.surface" class="scanned">
      <b>{{ $t("As scanned:") }}</b>
      <template v-if="flatWarp.length"
        ><span v-for="k in flatWarp" :key="k"
          >{{ " " + k }} <Len :ticks="warp[k]" :system="system" nearest />{{
            k === flatWarp.at(-1) ? ". " : ","
          }}</span
        ></template
      ><template v-else> {{ " " + $t("flat.") }}</template> {{ $t("Thickness and warp come from the scan.") }}
      <ElButton class="act quiet" @click="put($t('a scan less'), { surface: null, warp })">
        {{ $t("Go by figures again") }}
      </ElButton>
    </p>
    <div v-else class="fields">
      <div class="warp">
        <WarpSketch kind="bow" /><MeasureField
          :label="$t('Bow, under its middle')"
          :system="system"
          signed
          :model-value="board.warp.bow"
          @update:model-value="bend({ bow: $event })"
        />
      </div>
      <div class="warp">
        <WarpSketch kind="cup" /><MeasureField
          :label="$t('Cup, across')"
          :system="system"
          signed
          :model-value="board.warp.cup"
          @update:model-value="bend({ cup: $event })"
        />
      </div>
      <div class="warp">
        <WarpSketch kind="twist" /><MeasureField
          :label="$t('Twist, fourth corner')"
          :system="system"
          signed
          :model-value="board.warp.twist"
          @update:model-value="bend({ twist: $event })"
        />
      </div>
    </div>
    <h3>{{ $t("Measured at") }}</h3>
    <p class="soft small">
      {{
        $t(
          "Edges are heights above a straight line along the datum edge; crook shows in them. A minus sign means the other way.",
        )
      }}
    </p>
    <StationTable :board="board" :system="system" @put="put" />
    <h3>{{ $t("Grain, and how it was sold") }}</h3>
    <GrainPanel
      :board="board"
      :system="system"
      :sawn="look?.sawn ?? ''"
      :feed="look?.feed ?? []"
      @put="put"
    />
    <h3>{{ $t("Moisture") }}</h3>
    <MoisturePanel :board="board" @put="put" />
    <PhotoSheet v-if="photographing" :board="board" :face="face" @close="photographing = false" @put="put" />
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
.tracing {
  padding: 0.5rem 0.7rem;
  background: var(--crayon-wash, #fdeceb);
  border-left: 6px solid var(--crayon);
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
@media (max-width: 640px) {
  .kind {
    margin-left: 0;
    flex: 1 1 100%;
  }
  .fields {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
}
</style>

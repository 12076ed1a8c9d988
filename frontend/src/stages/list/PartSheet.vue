<script setup lang="ts">
/** All that is to be said of one part: where it comes from, how it is made, what belongs with it. */
import { I18nT } from "vue-i18n";
import { ElCheckbox } from "element-plus";
import { computed, ref } from "vue";
import type { Part } from "../../api/client";
import { useProject } from "../../api/project";
import Len from "../../controls/Len.vue";
import MeasureField from "../../controls/MeasureField.vue";
import { isMetric, TICKS_PER_INCH, TICKS_PER_MM } from "../../measure";
import { FIGURES } from "../../board/figures";
import AppDialog from "../../controls/AppDialog.vue";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import CountField from "../../controls/fields/CountField.vue";
import { t } from "../../i18n/i18n";

const props = defineProps<{ part: string }>();
const emit = defineEmits<{ close: []; change: [Part, string, Partial<Part>] }>();
const { pk, project } = useProject();
const open = ref(true);
const part = computed(() => project.value?.parts.find((p) => p.id === props.part));
const system = computed(() => project.value!.system);
const edge = computed(() => (isMetric(system.value) ? 6 * TICKS_PER_MM : TICKS_PER_INCH / 4));

function set(what: string, values: Partial<Part>): void {
  if (part.value) emit("change", part.value, what, values);
}
function text(what: string, name: "match" | "same_board" | "joint" | "run", event: Event): void {
  set(what, { [name]: (event.target as HTMLInputElement).value.trim() });
}
const ring = computed(
  () => part.value?.outline.map(([x, y]) => `${x},${part.value!.width - y!}`).join(" ") ?? "",
);
const cut = computed(() => {
  const p = part.value!;
  const e = p.edging;
  return e ? [p.length - e.ends * e.thickness, p.width - e.long_edges * e.thickness] : [p.length, p.width];
});
/** An arrow along the middle half of the part. */
function grainArrow({ length, width }: { length: number; width: number }): string {
  const [back, side] = [length * 0.03, length * 0.012];
  const shaft = `M ${length * 0.25} ${width / 2} H ${length * 0.75}`;
  return `${shaft} l ${-back} ${-side} m ${back} ${side} l ${-back} ${side}`;
}
const sameWord = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();
/** The boards and offcuts of its wood here, and what is named now although it is not here. */
const boards = computed(() => {
  const marks = project
    .value!.boards.filter((b) => sameWord(b.species, part.value!.species))
    .map((b) => b.id);
  const named = part.value!.from_board;
  const gone =
    named && !marks.includes(named) ? [[named, t("{named}, which is not here", { named })] as const] : [];
  return [["", t("any board")] as const, ...marks.map((m) => [m, m] as const), ...gone];
});
const STOCKS = [
  ["board", "boards"],
  ["sheet", "a sheet"],
  ["bought", t("bought finished, by length")],
] as const;
const GRAINS = [
  ["length", t("along the length")],
  ["width", t("along the width")],
  ["any", t("does not matter")],
] as const;
/** Long edges and ends that are edged. */
const EDGINGS = [
  ["", "none"],
  ["10", t("one long edge")],
  ["20", t("both long edges")],
  ["11", t("one long edge, one end")],
  ["22", t("all round")],
] as const;
function edged(sides: string): void {
  const thickness = part.value?.edging?.thickness ?? edge.value;
  const edging = sides ? { thickness, long_edges: Number(sides[0]), ends: Number(sides[1]) } : null;
  set("edging", { edging });
}
</script>

<template>
  <AppDialog
    v-model="open"
    :title="part ? `${part.id}: ${part.name}` : $t('Gone')"
    width="52rem"
    @closed="emit('close')"
  >
    <div v-if="part && project" class="sheet">
      <div class="drawn">
        <svg
          :viewBox="`${-part.length * 0.02} ${-part.width * 0.1} ${part.length * 1.04} ${part.width * 1.2}`"
          role="img"
          :aria-label="$t('{name} to scale', { name: part.name })"
        >
          <polygon v-if="ring" :points="ring" class="body" />
          <rect v-else :width="part.length" :height="part.width" class="body" />
          <path :d="grainArrow(part)" class="grain" />
        </svg>
        <p>
          <b class="figure"
            ><Len :ticks="part.length" :system="system" bare /> ×
            <Len :ticks="part.width" :system="system" bare /> × <Len :ticks="part.thickness" :system="system"
          /></b>
        </p>
        <p v-if="part.edging" class="soft">
          <I18nT keypath="Cut the sheet {size}; the edging makes the rest." scope="global"
            ><template #size
              ><Len :ticks="cut[0]!" :system="system" bare /> ×
              <Len :ticks="cut[1]!" :system="system" /></template
          ></I18nT>
        </p>
        <p v-for="(formula, name) in part.formulas" :key="name" class="soft">{{ name }} = {{ formula }}</p>
        <RouterLink
          v-if="part.source"
          :to="{ name: 'draw', params: { project: pk }, query: { part: part.id } }"
          >{{ $t("Show it on its drawing") }}</RouterLink
        >
      </div>
      <div class="fields">
        <ChoiceField
          :label="$t('Cut from')"
          :options="STOCKS"
          :model-value="part.stock"
          @update:model-value="set('stock', { stock: $event, edging: null })"
        />
        <template v-if="part.stock === 'sheet'">
          <ChoiceField
            :label="$t('Grain of the sheet')"
            :options="GRAINS"
            :model-value="part.grain"
            @update:model-value="set('grain', { grain: $event })"
          />
          <ChoiceField
            :label="$t('Solid edging')"
            :options="EDGINGS"
            :model-value="part.edging ? `${part.edging.long_edges}${part.edging.ends}` : ''"
            @update:model-value="edged($event ?? '')"
          />
          <MeasureField
            v-if="part.edging"
            :label="$t('Thickness of the edging')"
            :system="system"
            :model-value="part.edging.thickness"
            @update:model-value="set('edging', { edging: { ...part.edging!, thickness: $event } })"
          />
        </template>
        <template v-else-if="part.stock === 'board'">
          <CountField
            :label="$t('Glued up from layers')"
            :min="1"
            :max="20"
            :model-value="part.layers"
            @update:model-value="set('layers', { layers: Math.round($event) })"
          />
          <ElCheckbox :model-value="part.resawn" @change="set('resawing', { resawn: !!$event })">{{
            $t("Resawn out of thicker stock")
          }}</ElCheckbox>
          <label class="field"
            ><span>{{ $t("Run: grain flows on through") }}</span
            ><input
              class="line-input"
              :value="part.run"
              :disabled="!!part.panel"
              @change="text('run', 'run', $event)"
          /></label>
          <label class="field"
            ><span>{{ $t("Book-matched with") }}</span
            ><input
              class="line-input"
              :value="part.match"
              :placeholder="$t('a word both parts share')"
              @change="text('match', 'match', $event)"
          /></label>
          <label class="field"
            ><span>{{ $t("From one board with") }}</span
            ><input
              class="line-input"
              :value="part.same_board"
              :placeholder="$t('a word they share')"
              @change="text('same board', 'same_board', $event)"
          /></label>
          <ChoiceField
            :label="$t('Comes out of')"
            :options="boards"
            :model-value="part.from_board"
            @update:model-value="set('board', { from_board: $event })"
          />
          <ChoiceField
            :label="$t('Show this figure')"
            :options="[['', 'any'], ...FIGURES.map((f) => [f, f] as const)]"
            :model-value="part.figure"
            @update:model-value="set('figure', { figure: $event })"
          />
        </template>
        <ElCheckbox :model-value="part.fitted" @change="set('fitting', { fitted: !!$event })">{{
          $t("Fitted: hold it long, cut it to the work")
        }}</ElCheckbox>
        <label class="field"
          ><span>{{ $t("Joint at its ends") }}</span
          ><input
            class="line-input"
            list="joints"
            :value="part.joint"
            @change="text('joint', 'joint', $event)"
        /></label>
        <MeasureField
          :label="$t('What the joint adds to its length')"
          :system="system"
          :model-value="part.joint_length || null"
          @update:model-value="set('joint', { joint_length: $event })"
        />
        <datalist id="joints">
          <option
            v-for="j in [
              'mortise and tenon',
              'stub tenon',
              'housing',
              'dovetail',
              'lapped dovetail',
              'dowel',
              'mitre',
              'half-lap',
              'tongue and groove',
            ]"
            :key="j"
            :value="j"
          />
        </datalist>
      </div>
    </div>
    <p class="soft">
      {{
        $t(
          "Layout sees to runs, panels, layers, one board, book-matching and resawing by itself, and says where a wish cannot be kept. A part that comes out of a board or offcut named here is laid on nothing else, and Buy asks for no wood for it. A figure is shown where a board has it noted and it costs nothing more.",
        )
      }}
    </p>
  </AppDialog>
</template>

<style scoped>
.sheet {
  display: grid;
  grid-template-columns: 1fr 1.4fr;
  gap: 1.6rem;
  margin-bottom: 1rem;
}
.drawn {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
}
.drawn svg {
  width: 100%;
  max-height: 14rem;
}
.body {
  fill: var(--oak);
  stroke: var(--bark);
  vector-effect: non-scaling-stroke;
}
.grain {
  fill: none;
  stroke: var(--oak-dark);
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.8rem 1rem;
  align-items: end;
}
.tick {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  min-height: 44px;
}
.tick input {
  width: 18px;
  height: 18px;
  accent-color: var(--chalk);
}
.figure {
  font-size: 1.3rem;
}
@media (max-width: 760px) {
  .sheet,
  .fields {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

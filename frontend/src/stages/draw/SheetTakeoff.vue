<script setup lang="ts">
/**
 * Taking parts off a picture: scales by two points, parts as rectangles, written figures over
 * measured ones.
 */
import { I18nT } from "vue-i18n";
import { ElButton, ElMessage } from "element-plus";
import { computed, nextTick, ref, watch } from "vue";
import type { Drawing, Part, Reading } from "../../api/client";
import { plainPart } from "../../api/parts";
import { useProject } from "../../api/project";
import Len from "../../controls/Len.vue";
import { useKeyPointer } from "../../controls/keyPointer";
import MeasureField from "../../controls/MeasureField.vue";
import { markFor } from "../list/marks";
import { ruleStep } from "../../measure";
import { corners, mismatch, sides, type Mark, type Place, type Scale } from "./takeoff";
import { fresh, useMarks } from "./useMarks";
import { useSheet } from "./useSheet";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import WoodField from "../../controls/fields/WoodField.vue";
import { t } from "../../i18n/i18n";

const props = defineProps<{ drawing: Drawing; reading: Reading; part: string }>();
const { project, edit } = useProject();
const system = computed(() => project.value!.system);
/** 1/64 in or 0.1 mm: no picture says more. */
const step = computed(() => ruleStep(system.value));
const page = ref(0);
const view = computed(() => props.reading.views[page.value]!);

const chosen = ref("");

const { marks, ready, set, undo, canUndo } = useMarks(
  () => props.drawing.pk,
  () => {
    page.value = 0;
    chosen.value = "";
  },
);
const tool = ref<"scale" | "part" | "move">("scale");
const here = computed(() => marks.value.marks.filter((m) => m.page === page.value));
const { frame, svg, stroke, whole, place, zoom, shift, drag } = useSheet(
  view,
  computed(() => corners(view.value, here.value)),
);
const cursor = ref<Place | null>(null);
useKeyPointer(svg, () => (tool.value === "scale" ? "tap" : "drag"));

// ---- drawing on it -------------------------------------------------------------------------------
const from = ref<Place | null>(null);
const pending = ref<{ a: Place; b: Place } | null>(null);
const distance = ref<number | null>(null);
const scaleName = ref("");
const third = ref("");
const scaleHere = ref("");
const scale = computed(() => {
  const own = marks.value.scales.filter((s) => s.page === page.value);
  return own.find((s) => s.id === scaleHere.value) ?? own.at(-1);
});

function down(event: PointerEvent): void {
  if (event.button !== 0) return;
  if (event.isTrusted) svg.value!.setPointerCapture(event.pointerId); // keys have no pointer to hold
  if (tool.value === "move") drag.begin(event);
  else if (tool.value === "part") {
    if (!scale.value) {
      ElMessage({
        type: "error",
        message: t("Set the scale first: two points whose distance is written or known"),
      });
      tool.value = "scale";
      return;
    }
    from.value = place(event);
  } else if (from.value) {
    pending.value = { a: from.value, b: place(event) };
    from.value = null;
  } else from.value = place(event);
}
function move(event: PointerEvent): void {
  if (!drag.move(event)) cursor.value = place(event);
}
function up(event: PointerEvent): void {
  drag.end();
  if (tool.value !== "part" || !from.value) return;
  const [a, b] = [from.value, place(event)];
  from.value = null;
  if (Math.abs(a[0] - b[0]) < stroke.value * 3 || Math.abs(a[1] - b[1]) < stroke.value * 3) return;
  drawn(a, b);
}
function drawn(a: Place, b: Place): void {
  const mark: Mark = {
    id: fresh("m", marks.value.marks),
    page: page.value,
    scale: scale.value!.id,
    a,
    b,
    part: "",
    along: 0,
    across: 0,
  };
  if (third.value) {
    const [, short] = sides(mark, scale.value!, step.value);
    thickness.value = short;
    set({
      ...marks.value,
      marks: [
        ...marks.value.marks,
        { ...mark, part: marks.value.marks.find((m) => m.id === third.value)?.part ?? "" },
      ],
    });
    third.value = "";
    return;
  }
  set({ ...marks.value, marks: [...marks.value.marks, mark] });
  choose(mark.id);
}
function keepScale(): void {
  if (!distance.value) {
    ElMessage({ type: "error", message: t("It still needs the distance between the two points") });
    return;
  }
  const s: Scale = {
    id: fresh("s", marks.value.scales),
    page: page.value,
    name: scaleName.value || t("scale {scales}", { scales: marks.value.scales.length + 1 }),
    a: pending.value!.a,
    b: pending.value!.b,
    distance: distance.value!,
  };
  set({ ...marks.value, scales: [...marks.value.scales, s] });
  scaleHere.value = s.id;
  pending.value = null;
  distance.value = null;
  scaleName.value = "";
  tool.value = "part";
}
function dropScale(id: string): void {
  set({ scales: marks.value.scales.filter((s) => s.id !== id), marks: marks.value.marks });
}

// ---- the part of a mark --------------------------------------------------------------------------
const name = ref("");
const count = ref(1);
const wood = ref("");
const thickness = ref<number | null>(null);
const nameField = ref<HTMLInputElement>();
const mark = computed(() => marks.value.marks.find((m) => m.id === chosen.value));
const scaleOf = (m: Mark): Scale | undefined => marks.value.scales.find((s) => s.id === m.scale);
const measured = computed<[number, number]>(() =>
  mark.value && scaleOf(mark.value) ? sides(mark.value, scaleOf(mark.value)!, step.value) : [0, 0],
);
const length = computed(() => mark.value?.along || measured.value[0]);
const width = computed(() => mark.value?.across || measured.value[1]);
const species = computed(() => wood.value || project.value?.parts.at(-1)?.species || "white oak");
/** The part a mark stands for: taken off here, or shown here and taken off elsewhere. */
function partOf(id: string): Part | undefined {
  const parts = project.value!.parts;
  return (
    parts.find((p) => p.source?.drawing === props.drawing.pk && p.source.key === id) ??
    parts.find((p) => p.id === marks.value.marks.find((m) => m.id === id)?.part)
  );
}
const listed = computed(() => partOf(chosen.value));

function choose(id: string): void {
  chosen.value = id;
  tool.value = tool.value === "scale" ? "part" : tool.value;
  const part = partOf(id);
  name.value = part?.name ?? "";
  count.value = part?.quantity ?? 1;
  thickness.value = part?.thickness ?? thickness.value;
  void nextTick(() => nameField.value?.focus());
}
watch(
  () => props.part,
  (part) => {
    const key = project.value!.parts.find((p) => p.id === part && p.source?.drawing === props.drawing.pk)
      ?.source?.key;
    const found = marks.value.marks.find((m) => m.id === key);
    if (found) {
      page.value = found.page;
      choose(found.id);
    }
  },
  { immediate: true },
);
watch(marks, () => {
  if (!props.part || chosen.value) return;
  const key = project.value!.parts.find((p) => p.id === props.part && p.source?.drawing === props.drawing.pk)
    ?.source?.key;
  if (key && marks.value.marks.some((m) => m.id === key)) choose(key);
});
function change(values: Partial<Mark>): void {
  set({
    ...marks.value,
    marks: marks.value.marks.map((m) => (m.id === chosen.value ? { ...m, ...values } : m)),
  });
}
function removeMark(): void {
  set({ ...marks.value, marks: marks.value.marks.filter((m) => m.id !== chosen.value) });
  chosen.value = "";
}
function put(): void {
  if (!name.value.trim() || !thickness.value) {
    ElMessage({
      type: "error",
      message: name.value.trim()
        ? t("It still needs a thickness: by hand, or from another view")
        : t("It still needs a name"),
    });
    return;
  }
  const known = listed.value;
  const id = known?.id ?? markFor(name.value, new Set(project.value!.parts.map((p) => p.id)));
  const sizes = {
    name: name.value.trim(),
    quantity: Math.max(1, Math.round(count.value)),
    length: Math.max(length.value, width.value),
    width: Math.min(length.value, width.value),
    thickness: thickness.value,
  };
  const part = known
    ? { ...known, ...sizes, formulas: {} }
    : plainPart({
        id,
        species: species.value,
        source: { drawing: props.drawing.pk, key: chosen.value },
        ...sizes,
      });
  void edit({
    label: t("{part} from {drawing}", { part: name.value.trim(), drawing: props.drawing.name }),
    put_parts: [part],
  });
  change({ part: id });
  chosen.value = "";
  name.value = "";
  count.value = 1;
}
function key(event: KeyboardEvent): void {
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z") {
    event.preventDefault();
    event.stopPropagation();
    undo();
    return;
  }
  if (event.target !== svg.value) return;
  const m = mark.value;
  const step = stroke.value;
  const by: Record<string, Place> = {
    ArrowLeft: [-step, 0],
    ArrowRight: [step, 0],
    ArrowUp: [0, -step],
    ArrowDown: [0, step],
  };
  const d = by[event.key];
  if (d && m) {
    event.preventDefault();
    const b: Place = [m.b[0]! + d[0], m.b[1]! + d[1]];
    change(event.shiftKey ? { b } : { a: [m.a[0]! + d[0], m.a[1]! + d[1]], b });
  } else if (d) {
    event.preventDefault();
    shift(d[0] * 40, d[1] * 40);
  } else if (event.key === "Delete" && m) removeMark();
  else if (event.key === "+" || event.key === "=") zoom(1 / 1.25);
  else if (event.key === "-") zoom(1.25);
  else if (event.key === "s") tool.value = "scale";
  else if (event.key === "p") tool.value = "part";
  else if (event.key === "m") tool.value = "move";
  else if (event.key === "Escape") {
    from.value = null;
    pending.value = null;
    chosen.value = "";
    third.value = "";
  }
}
const box = (a: Place | number[], b: Place | number[]) => ({
  x: Math.min(a[0]!, b[0]!),
  y: Math.min(a[1]!, b[1]!),
  width: Math.abs(a[0]! - b[0]!),
  height: Math.abs(a[1]! - b[1]!),
});
const hint = computed(() => {
  if (third.value) return t("Draw the same part in the view that shows its thickness.");
  if (tool.value === "scale")
    return from.value
      ? t("Now the second point.")
      : t("Press two points whose distance is written or known. Each view may have a scale of its own.");
  if (tool.value === "part")
    return t("Draw a rectangle over a part. With Shift and arrows its far corner moves.");
  return t("Drag the sheet.");
});
</script>

<template>
  <div class="takeoff" @keydown="key">
    <div class="sheet">
      <div class="bar">
        <ElButton
          v-for="[one, word] in [
            ['scale', $t('Set a scale')],
            ['part', $t('Draw a part')],
            ['move', $t('Move the sheet')],
          ] as const"
          :key="one"
          class="act quiet"
          :class="{ on: tool === one }"
          @click="tool = one"
        >
          {{ word }}
        </ElButton>
        <ChoiceField
          v-if="reading.views.length > 1"
          v-model="page"
          class="pages"
          :label="$t('Page')"
          hide-label
          :options="reading.views.map((v, i) => [i, v.name] as const)"
        />
        <span class="grow" />
        <ElButton class="act quiet" :disabled="!canUndo" @click="undo">{{ $t("↶ mark") }}</ElButton>
        <ElButton class="act quiet" :aria-label="$t('Smaller')" @click="zoom(1.25)">−</ElButton>
        <ElButton class="act quiet" :aria-label="$t('Larger')" @click="zoom(1 / 1.25)">+</ElButton>
        <ElButton class="act quiet" @click="whole">{{ $t("Whole") }}</ElButton>
      </div>
      <svg
        ref="svg"
        class="paper"
        :class="[tool, { waits: !ready }]"
        tabindex="0"
        role="application"
        :viewBox="`${frame.x} ${frame.y} ${frame.w} ${frame.h}`"
        :aria-label="`${drawing.name}: ${hint}`"
        @pointerdown="down"
        @pointermove="move"
        @pointerup="up"
        @pointercancel="from = null"
        @wheel.prevent="zoom($event.deltaY > 0 ? 1.15 : 1 / 1.15, $event)"
      >
        <image
          :href="`/api/drawings/${drawing.pk}/pages/${page}`"
          :width="view.width"
          :height="view.height"
          preserveAspectRatio="none"
        />
        <g v-for="s in marks.scales.filter((s) => s.page === page)" :key="s.id" class="scale">
          <line :x1="s.a[0]" :y1="s.a[1]" :x2="s.b[0]" :y2="s.b[1]" :stroke-width="stroke * 2.5" />
          <circle v-for="(p, i) in [s.a, s.b]" :key="i" :cx="p[0]" :cy="p[1]" :r="stroke * 4" />
        </g>
        <rect
          v-for="m in here"
          :key="m.id"
          v-bind="box(m.a, m.b)"
          class="mark"
          :class="{ chosen: m.id === chosen, listed: m.part }"
          :data-mark="m.id"
          :stroke-width="stroke * (m.id === chosen ? 3 : 1.5)"
          @pointerdown="
            tool !== 'scale' && m.id !== chosen && !third
              ? (choose(m.id), $event.stopPropagation())
              : undefined
          "
        >
          <title>{{ m.part || $t("not on the list yet") }}</title>
        </rect>
        <template v-if="from && cursor">
          <rect
            v-if="tool === 'part'"
            v-bind="box(from, cursor)"
            class="mark chosen"
            :stroke-width="stroke * 2"
          />
          <line
            v-else
            :x1="from[0]"
            :y1="from[1]"
            :x2="cursor[0]"
            :y2="cursor[1]"
            class="going"
            :stroke-width="stroke * 2"
          />
        </template>
        <circle
          v-if="cursor && tool !== 'move'"
          :cx="cursor[0]"
          :cy="cursor[1]"
          :r="stroke * 5"
          class="cursor"
          :stroke-width="stroke"
        />
      </svg>
      <p class="hint">{{ hint }}</p>
    </div>
    <div class="side">
      <div v-if="pending" class="form">
        <h3>{{ $t("How far apart are they?") }}</h3>
        <MeasureField v-model="distance" :label="$t('Distance between the two points')" :system="system" />
        <label class="field"
          ><span>{{ $t("Of which view") }}</span
          ><input v-model="scaleName" class="line-input" :placeholder="$t('front')"
        /></label>
        <div class="buttons">
          <ElButton class="act lead" @click="keepScale">{{ $t("Set the scale") }}</ElButton><ElButton
            class="act"
            @click="pending = null"
            >{{ $t("Leave it") }}</ElButton
          >
        </div>
      </div>
      <div v-else-if="mark" class="form">
        <h3>{{ listed ? $t("{id}, on the list", { id: listed.id }) : $t("A part") }}</h3>
        <label class="field"
          ><span>{{ $t("Name") }}</span
          ><input ref="nameField" v-model="name" class="line-input" :aria-label="$t('Name of the part')"
        /></label>
        <label class="field"
          ><span>{{ $t("Count") }}</span
          ><input
            v-model.number="count"
            class="line-input"
            type="number"
            min="1"
            :aria-label="$t('Count of the part')"
        /></label>
        <p class="soft">
          <I18nT keypath="By the scale: {size}. A written figure rules over it." scope="global"
            ><template #size
              ><Len :ticks="measured[0]" :system="system" bare nearest /> ×
              <Len :ticks="measured[1]" :system="system" nearest /></template
          ></I18nT>
        </p>
        <MeasureField
          :label="$t('Length, as written')"
          :system="system"
          :model-value="length"
          @update:model-value="change({ along: $event })"
        />
        <p v-if="mismatch(mark.along ?? 0, measured[0])" class="note">
          <I18nT
            keypath="Written {written}, by the scale {scaled}: the written figure is taken."
            scope="global"
            ><template #written><Len :ticks="mark.along!" :system="system" /></template
            ><template #scaled><Len :ticks="measured[0]" :system="system" nearest /></template
          ></I18nT>
          {{ $t("Is this the right scale for this view?") }}
        </p>
        <MeasureField
          :label="$t('Width, as written')"
          :system="system"
          :model-value="width"
          @update:model-value="change({ across: $event })"
        />
        <p v-if="mismatch(mark.across ?? 0, measured[1])" class="note">
          <I18nT
            keypath="Written {written}, by the scale {scaled}: the written figure is taken."
            scope="global"
            ><template #written><Len :ticks="mark.across!" :system="system" /></template
            ><template #scaled><Len :ticks="measured[1]" :system="system" nearest /></template
          ></I18nT>
        </p>
        <MeasureField v-model="thickness" :label="$t('Thickness')" :system="system" />
        <ElButton
          class="act"
          :class="{ on: third === mark.id }"
          @click="
            third = third === mark.id ? '' : mark.id;
            tool = 'part';
          "
        >
          {{ $t("Take it from another view") }}
        </ElButton>
        <WoodField v-if="!listed" v-model="wood" :label="$t('Wood')" :placeholder="species" />
        <div class="buttons">
          <ElButton class="act lead" @click="put">
            {{ listed ? $t("Change it on the list") : $t("Put it on the list") }}</ElButton><ElButton
            class="act quiet"
            @click="removeMark"
          >
            {{ $t("Rub it out") }}
          </ElButton>
        </div>
      </div>
      <div v-else class="form">
        <h3>{{ $t("Scales") }}</h3>
        <p v-if="!marks.scales.length" class="soft">
          {{ $t("None yet. Written figures rule, but a scale gives what is not written.") }}
        </p>
        <div v-for="s in marks.scales" :key="s.id" class="scale-row">
          <ElButton
            class="act"
            :class="{ on: s.id === scale?.id }"
            :disabled="s.page !== page"
            @click="scaleHere = s.id"
          >
            {{ s.name }}: <Len :ticks="s.distance" :system="system" />
          </ElButton>
          <ElButton
            class="act quiet"
            :aria-label="$t('Remove {name}', { name: s.name })"
            @click="dropScale(s.id)"
            >×</ElButton
          >
        </div>
        <p v-if="marks.marks.length" class="soft">
          {{
            $t("{listed} of {marks} marks are on the list. Press one to see it.", {
              listed: marks.marks.filter((m) => m.part).length,
              marks: marks.marks.length,
            })
          }}
        </p>
      </div>
    </div>
  </div>
</template>

<style scoped>
.takeoff {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 20rem;
  gap: 1.2rem;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  border-bottom: 1px solid var(--ink-faint);
}
.bar .on {
  box-shadow: inset 0 -5px 0 var(--chalk);
}
.pages {
  width: auto;
}
.grow {
  flex: 1;
}
.paper {
  display: block;
  width: 100%;
  height: clamp(22rem, 60vh, 48rem);
  background: var(--plaster-deep);
  touch-action: none;
  cursor: crosshair;
}
.paper.waits {
  visibility: hidden;
}
.paper.move {
  cursor: grab;
}
.scale line {
  stroke: var(--tape-deep);
}
.scale circle {
  fill: var(--tape);
  stroke: var(--ink);
  stroke-width: 0.2;
}
.mark {
  fill: rgb(212 32 52 / 10%);
  stroke: var(--crayon);
}
.mark.listed {
  fill: rgb(227 194 144 / 45%);
  stroke: var(--bark);
}
.mark.chosen {
  fill: rgb(37 99 217 / 18%);
  stroke: var(--chalk);
}
.going {
  stroke: var(--tape-deep);
}
.cursor {
  fill: none;
  stroke: var(--chalk);
  pointer-events: none;
}
.hint {
  padding: 0.4rem 0.6rem;
  border-top: 1px solid var(--ink-faint);
  font-size: 0.9rem;
}
.form,
.side {
  display: flex;
  flex-direction: column;
  gap: 0.7rem;
}
.buttons,
.scale-row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
@media (max-width: 900px) {
  .takeoff {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

<script setup lang="ts">
/** Dividing a length: shelves for what is to stand there, drawers equal or graded, slats. */
import { ElButton, ElSlider } from "element-plus";
import { keepPreviousData, useQuery } from "@tanstack/vue-query";
import { computed, ref } from "vue";
import { api, type Schemas } from "../../api/client";
import { useProject } from "../../api/project";
import Len from "../../controls/Len.vue";
import MeasureField from "../../controls/MeasureField.vue";
import { isMetric, parse, TICKS_PER_INCH, TICKS_PER_MM } from "../../measure";
import AppDialog from "../../controls/AppDialog.vue";
import CountField from "../../controls/fields/CountField.vue";
import { t } from "../../i18n/i18n";

const emit = defineEmits<{ close: [] }>();
const { project } = useProject();
const open = ref(true);
const system = computed(() => project.value!.system);
const metric = isMetric(system.value);
const len = (inches: number, mm: number) => (metric ? mm * TICKS_PER_MM : inches * TICKS_PER_INCH);

type Kind = Schemas["DivideBody"]["kind"];
const kind = ref<Kind>("shelves");
const span = ref(len(48, 1220));
const stock = ref(len(13 / 16, 20));
const room = ref(len(1, 25));
const gap = ref(len(1 / 8, 3));
const count = ref(4);
const growth = ref(1.25);
const heights = ref(metric ? "320, 260, 260, 210" : "12 1/2, 10, 10, 8 1/2");

const read = computed(() => {
  const found: number[] = [];
  for (const word of heights.value
    .split(/[,;]/)
    .map((w) => w.trim())
    .filter(Boolean)) {
    try {
      found.push(parse(word, system.value));
    } catch {
      return { found: [], why: t("'{word}' cannot be read as a length", { word }) };
    }
  }
  return { found, why: "" };
});
const { data, error } = useQuery({
  queryKey: computed(() => [
    "divide",
    kind.value,
    span.value,
    stock.value,
    room.value,
    gap.value,
    count.value,
    growth.value,
    read.value.found,
    system.value,
  ]),
  queryFn: async () =>
    (
      await api.POST("/api/divide", {
        body: {
          kind: kind.value,
          span: span.value,
          stock: kind.value.startsWith("drawers") ? 0 : stock.value,
          room: room.value,
          heights: read.value.found,
          count: Math.max(1, Math.round(count.value || 1)),
          gap: gap.value,
          growth: growth.value,
          system: system.value,
        },
      })
    ).data!,
  placeholderData: keepPreviousData,
});
const upright = computed(() => kind.value === "shelves" || kind.value.startsWith("drawers"));
const KINDS: [Kind, string][] = [
  ["shelves", t("Shelves")],
  ["drawers-equal", t("Drawers, equal")],
  ["drawers-graded", t("Drawers, graded")],
  ["slats-count", t("So many slats")],
  ["slats-gap", t("Slats with a wanted gap")],
];
/** What is drawn: things of wood with their place and size along the length. */
const things = computed(() => {
  const d = data.value;
  if (!d || error.value) return [];
  const size = (i: number) => (kind.value.startsWith("drawers") ? d.openings[i]! : stock.value);
  return d.at.map((at, i) => ({ at, size: size(i) }));
});
</script>

<template>
  <AppDialog v-model="open" :title="$t('Divide a length')" width="54rem" @closed="emit('close')">
    <div class="kinds">
      <ElButton v-for="[k, word] in KINDS" :key="k" class="act" :class="{ on: k === kind }" @click="kind = k">
        {{ word }}
      </ElButton>
    </div>
    <div class="two">
      <div class="fields">
        <MeasureField
          v-model="span"
          :label="upright ? $t('Clear height') : $t('Between the posts')"
          :system="system"
        />
        <MeasureField
          v-if="!kind.startsWith('drawers')"
          v-model="stock"
          :label="kind === 'shelves' ? $t('Thickness of a shelf') : $t('Width of a slat')"
          :system="system"
        />
        <label v-if="kind === 'shelves'" class="field"
          ><span>{{ $t("What is to stand there, from the bottom") }}</span
          ><input v-model.lazy="heights" class="line-input"
        /></label>
        <p v-if="kind === 'shelves' && read.why" class="note">{{ read.why }}</p>
        <MeasureField
          v-if="kind === 'shelves'"
          v-model="room"
          :label="$t('Finger room above each')"
          :system="system"
        />
        <CountField
          v-if="kind.startsWith('drawers') || kind === 'slats-count'"
          v-model="count"
          :label="$t('How many')"
          :min="1"
        />
        <MeasureField
          v-if="kind.startsWith('drawers') || kind === 'slats-gap'"
          v-model="gap"
          :label="kind === 'slats-gap' ? $t('Wanted gap') : $t('Gap round each front')"
          :system="system"
        />
        <label v-if="kind === 'drawers-graded'" class="field"
          ><span>{{ $t("Each {growth} times the one above", { growth }) }}</span
          ><ElSlider v-model="growth" :min="1" :max="1.6" :step="0.05" :show-tooltip="false"
        /></label>
      </div>
      <div class="seen">
        <p v-if="error" class="note">{{ error.message }}</p>
        <svg
          v-else
          :viewBox="upright ? `0 0 ${span * 0.5} ${span}` : `0 0 ${span} ${span * 0.35}`"
          role="img"
          :aria-label="$t('The length as divided')"
        >
          <rect :width="upright ? span * 0.5 : span" :height="upright ? span : span * 0.35" class="room" />
          <rect
            v-for="(thing, i) in things"
            :key="i"
            :x="upright ? 0 : thing.at"
            :y="upright ? span - thing.at - thing.size : 0"
            :width="upright ? span * 0.5 : thing.size"
            :height="upright ? thing.size : span * 0.35"
            class="thing"
          />
        </svg>
        <template v-if="data && !error">
          <p>
            <b
              >{{
                kind === "shelves"
                  ? $t("Openings from the bottom")
                  : kind.startsWith("drawers")
                    ? $t("Fronts from the bottom")
                    : $t("Gaps")
              }}:</b
            >
            <span v-for="(o, i) in data.openings" :key="i"
              ><Len :ticks="o" :system="system" />{{ i < data.openings.length - 1 ? ", " : "" }}</span
            >
          </p>
          <p>
            <b>{{ $t("Mark from the {upright}:", { upright: upright ? $t("bottom") : $t("left") }) }}</b>
            <span v-for="(a, i) in data.at" :key="i"
              ><Len :ticks="a" :system="system" />{{ i < data.at.length - 1 ? ", " : "" }}</span
            >
          </p>
          <p>{{ data.said }}.</p>
        </template>
      </div>
    </div>
  </AppDialog>
</template>

<style scoped>
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin-bottom: 1rem;
}
.two {
  display: grid;
  grid-template-columns: 18rem minmax(0, 1fr);
  gap: 1.6rem;
}
.fields,
.seen {
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
}
svg {
  max-height: 20rem;
}
.room {
  fill: var(--plaster-deep);
  stroke: var(--ink);
  stroke-width: 3;
  vector-effect: non-scaling-stroke;
}
.thing {
  fill: var(--oak);
  stroke: var(--bark);
  vector-effect: non-scaling-stroke;
}
@media (max-width: 760px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

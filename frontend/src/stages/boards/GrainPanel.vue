<script setup lang="ts">
/**
 * Grain, rings and figure; what the yard has dressed; what it was sold as; whether it was searched
 * for metal.
 */
import { I18nT } from "vue-i18n";
import { ElButton, ElCheckbox } from "element-plus";
import { computed } from "vue";
import type { Board, Grain } from "../../api/client";
import MeasureField from "../../controls/MeasureField.vue";
import type { System } from "../../measure";
import { FIGURES } from "../../board/figures";
import TextField from "../../controls/fields/TextField.vue";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import { t } from "../../i18n/i18n";

const props = defineProps<{ board: Board; system: System; sawn: string; feed: string[] }>();
const emit = defineEmits<{ put: [string, Partial<Board>] }>();
const grain = computed(() => props.board.grain);
const SLOPES: [number | null, string][] = [
  [null, t("not looked at")],
  [0, "straight"],
  [0.02, t("climbs a little")],
  [0.06, "climbs"],
  [0.15, t("climbs steeply")],
  [-0.02, t("falls a little")],
  [-0.06, "falls"],
  [-0.15, t("falls steeply")],
];
const EDGES = [
  ["datum_edge", t("Fibres on the datum edge")],
  ["far_edge", t("Fibres on the far edge")],
] as const;
const SIDES = [
  ["A", t("face A")],
  ["B", t("face B")],
  ["datum-edge", t("datum edge")],
  ["far-edge", t("far edge")],
] as const;
const mark = computed(() => {
  const d = props.board.dressed;
  const faces = d.filter((s) => s === "A" || s === "B").length;
  const edges = d.length - faces;
  return faces + edges === 4
    ? "S4S"
    : (faces ? `S${faces}S` : "") + (edges ? `${edges}E`.replace(/^/, faces ? "" : "S") : "") || "rough";
});
function put(values: Partial<Grain>): void {
  emit("put", "grain", { grain: { ...grain.value, ...values } });
}
function slope(edge: "datum_edge" | "far_edge", text: string): void {
  put({ [edge]: text === "" ? null : Number(text) });
}
/** A slope that is not among the words keeps its figure. */
function choices(value: number | null): [number | null, string][] {
  return SLOPES.some(([s]) => s === value) ? SLOPES : [...SLOPES, [value, `${value} in 1`]];
}
function rings(event: Event): void {
  const text = (event.target as HTMLInputElement).value.trim();
  const value = Math.round(Number(text));
  put({ rings: text === "" || !(value >= 0 && value <= 90) ? null : value });
}
function dress(side: (typeof SIDES)[number][0], on: boolean): void {
  emit("put", "dressed sides", {
    dressed: SIDES.map(([s]) => s).filter((s) => (s === side ? on : props.board.dressed.includes(s))),
  });
}
function zone(k: number, values: Partial<Grain["zones"][number]>): void {
  put({ zones: grain.value.zones.map((z, n) => (n === k ? { ...z, ...values } : z)) });
}
const HEARTS = [
  ["", t("not looked at")],
  ["A", t("face A")],
  ["B", t("face B")],
] as const;
const GRADES = ["FAS", "FAS one face", "Selects", "No. 1 Common", "No. 2A Common", "No. 3A Common"];
</script>

<template>
  <div class="grain">
    <div class="fields">
      <ChoiceField
        v-for="[edge, says] in EDGES"
        :key="edge"
        :label="$t('{says}, toward face A', { says })"
        :options="choices(grain[edge]).map(([s, w]) => [String(s ?? ''), w] as const)"
        :model-value="String(grain[edge] ?? '')"
        @update:model-value="slope(edge, $event ?? '')"
      />
      <label class="field"
        ><span>{{ $t("Rings to the face at its end, degrees") }}</span
        ><input
          class="line-input"
          inputmode="numeric"
          :placeholder="$t('0 flat … 90 quarter')"
          :value="grain.rings ?? ''"
          @change="rings"
      /></label>
      <ChoiceField
        :label="$t('Heart side')"
        :options="HEARTS"
        :model-value="grain.heart"
        @update:model-value="put({ heart: $event })"
      />
      <ChoiceField
        :label="$t('Sold as')"
        :options="[['', $t('no grade')], ...GRADES.map((g) => [g, g] as const)]"
        :model-value="board.grade"
        @update:model-value="emit('put', 'grade', { grade: $event })"
      />
      <label class="field"
        ><span>{{ $t("Sold by") }}</span
        ><TextField
          :model-value="board.supplier"
          @update:model-value="emit('put', 'supplier', { supplier: $event })"
      /></label>
    </div>
    <p v-if="sawn || feed.length" class="told">
      <template v-if="sawn"
        ><I18nT keypath="By its rings it is {sawn}." scope="global"
          ><template #sawn
            ><b>{{ sawn }}</b></template
          ></I18nT
        >{{ " " }}</template
      ><template v-for="f in feed" :key="f">{{ f }} </template>
    </p>
    <p class="ticks" role="group" :aria-label="$t('Dressed sides')">
      <span class="soft">{{ $t("Dressed by the yard ({mark}):", { mark }) }}</span>
      <ElCheckbox
        v-for="[s, w] in SIDES"
        :key="s"
        :model-value="board.dressed.includes(s)"
        @change="dress(s, !!$event)"
        >{{ w }}</ElCheckbox
      >
      <ElCheckbox
        :model-value="board.searched"
        @change="emit('put', $t('a search for metal'), { searched: !!$event })"
        >{{ $t("searched for metal") }}</ElCheckbox
      >
    </p>
    <div v-for="(z, k) in grain.zones" :key="k" class="zone">
      <ChoiceField
        :label="$t('Figure')"
        :options="FIGURES.map((f) => [f, f] as const)"
        :model-value="z.figure"
        @update:model-value="zone(k, { figure: $event })"
      />
      <MeasureField
        :label="$t('Figure from')"
        :system="system"
        :model-value="z.x0"
        @update:model-value="zone(k, { x0: $event })"
      />
      <MeasureField
        :label="$t('to')"
        :system="system"
        :model-value="z.x1"
        @update:model-value="zone(k, { x1: $event })"
      />
      <MeasureField
        :label="$t('up from')"
        :system="system"
        signed
        :model-value="z.y0"
        @update:model-value="zone(k, { y0: $event })"
      />
      <MeasureField
        :label="$t('to')"
        :system="system"
        :model-value="z.y1"
        @update:model-value="zone(k, { y1: $event })"
      />
      <ElButton
        class="act"
        :aria-label="$t('Remove the {figure} figure', { figure: z.figure })"
        @click="put({ zones: grain.zones.filter((_, n) => n !== k) })"
      >
        ×
      </ElButton>
    </div>
  </div>
</template>

<style scoped>
.grain {
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(11rem, 1fr));
  gap: 0.9rem 1.1rem;
  align-items: end;
}
.ticks {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.2rem;
  align-items: center;
}
.tick {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
  min-height: 44px;
}
.tick input {
  width: 18px;
  height: 18px;
  accent-color: var(--chalk);
}
.told {
  font-weight: 560;
}
.zone {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(7rem, 1fr));
  gap: 0.8rem;
  align-items: end;
}
.zone .act {
  width: 48px;
}
</style>

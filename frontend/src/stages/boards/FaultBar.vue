<script setup lang="ts">
/** The chosen fault: nudged, resized, turned from one shape or face to another. */
import { ElButton } from "element-plus";
import { computed } from "vue";
import type { Defect } from "../../api/client";
import { SOUND, UNSOUND } from "../../board/geometry";
import MeasureField from "../../controls/MeasureField.vue";
import { isMetric, TICKS_PER_INCH, TICKS_PER_MM, type System } from "../../measure";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import { t } from "../../i18n/i18n";

const props = defineProps<{ fault: Defect; face: "A" | "B"; system: System }>();
const emit = defineEmits<{ put: [Partial<Defect>]; remove: [] }>();
const step = computed(() => (isMetric(props.system) ? 2 * TICKS_PER_MM : TICKS_PER_INCH / 8));

function moved(dx: number, dy: number): void {
  const d = props.fault;
  emit("put", {
    x0: d.x0 + dx,
    x1: d.x1 + dx,
    y0: d.y0 + dy,
    y1: d.y1 + dy,
    points: d.points.map((p) => [p[0]! + dx, p[1]! + dy]),
  });
}
function shaped(shape: Defect["shape"]): void {
  const d = props.fault;
  const points =
    shape === "outline"
      ? [
          [d.x0, d.y0],
          [d.x1, d.y0],
          [d.x1, d.y1],
          [d.x0, d.y1],
        ]
      : [];
  emit("put", { shape, points });
}
/** An outline is stretched with its bounds. */
function bounded(values: Partial<Pick<Defect, "x0" | "x1" | "y0" | "y1">>): void {
  const d = props.fault;
  const now = { x0: d.x0, x1: d.x1, y0: d.y0, y1: d.y1, ...values };
  const fit = (at: number, a: number, b: number, to: number, end: number) =>
    Math.round(to + ((at - a) / (b - a || 1)) * (end - to));
  emit("put", {
    ...now,
    points: d.points.map((p) => [
      fit(p[0]!, d.x0, d.x1, now.x0, now.x1),
      fit(p[1]!, d.y0, d.y1, now.y0, now.y1),
    ]),
  });
}
const FACES = [
  ["A", t("face A")],
  ["B", t("face B")],
  ["both", t("both: it goes through")],
] as const;
const SHAPES = [
  ["rectangle", "square-cornered"],
  ["ellipse", "round"],
  ["outline", t("drawn outline")],
] as const;
const SEVERITIES = [
  ["slight", "slight"],
  ["plain", "plain"],
  ["grave", "grave"],
] as const;
</script>

<template>
  <div class="fault-bar">
    <ChoiceField
      :label="$t('Fault')"
      :groups="[
        { label: $t('sound'), options: SOUND.map((k) => [k, k]) },
        { label: $t('unsound: lies in no part'), options: UNSOUND.map((k) => [k, k]) },
      ]"
      :model-value="fault.kind"
      @update:model-value="emit('put', { kind: $event })"
    />
    <div class="nudges" role="group" :aria-label="$t('Move the fault')">
      <ElButton class="act" :aria-label="$t('Toward the datum end')" @click="moved(-step, 0)">←</ElButton>
      <ElButton class="act" :aria-label="$t('Toward the far end')" @click="moved(step, 0)">→</ElButton>
      <ElButton class="act" :aria-label="$t('Up')" @click="moved(0, face === 'A' ? step : -step)">↑</ElButton>
      <ElButton class="act" :aria-label="$t('Down')" @click="moved(0, face === 'A' ? -step : step)"
        >↓</ElButton
      >
    </div>
    <ChoiceField
      :label="$t('On')"
      :options="FACES"
      :model-value="fault.face"
      @update:model-value="emit('put', { face: $event })"
    />
    <ChoiceField
      :label="$t('Shape')"
      :options="SHAPES"
      :model-value="fault.shape"
      @update:model-value="shaped($event!)"
    />
    <ChoiceField
      :label="$t('How bad')"
      :options="SEVERITIES"
      :model-value="fault.severity"
      @update:model-value="emit('put', { severity: $event })"
    />
    <MeasureField
      :label="$t('From')"
      :system="system"
      :model-value="fault.x0"
      signed
      @update:model-value="bounded({ x0: $event })"
    />
    <MeasureField
      :label="$t('to')"
      :system="system"
      :model-value="fault.x1"
      signed
      @update:model-value="bounded({ x1: $event })"
    />
    <MeasureField
      :label="$t('Up from')"
      :system="system"
      :model-value="fault.y0"
      signed
      @update:model-value="bounded({ y0: $event })"
    />
    <MeasureField
      :label="$t('to')"
      :system="system"
      :model-value="fault.y1"
      signed
      @update:model-value="bounded({ y1: $event })"
    />
    <ElButton class="act" @click="emit('remove')">{{ $t("Remove") }}</ElButton>
  </div>
</template>

<style scoped>
.fault-bar {
  display: flex;
  flex-wrap: wrap;
  gap: 0.7rem;
  align-items: flex-end;
  padding: 0.7rem;
  background: var(--chalk-wash);
  border-left: 6px solid var(--chalk);
}
.fault-bar .field,
.fault-bar :deep(.measure) {
  width: 7.4rem;
}
.nudges {
  display: flex;
  gap: 0.3rem;
}
</style>

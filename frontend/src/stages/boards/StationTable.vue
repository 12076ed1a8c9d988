<script setup lang="ts">
/** Where the board was measured: edges, and thickness across in as many places as one cares to. */
import { ElButton } from "element-plus";
import { computed } from "vue";
import type { Board, Station } from "../../api/client";
import { target } from "../../api/instruments";
import MeasureField from "../../controls/MeasureField.vue";
import { show, type System } from "../../measure";
import { t } from "../../i18n/i18n";

const props = defineProps<{ board: Board; system: System }>();
const emit = defineEmits<{ put: [string, Partial<Board>] }>();
const stations = computed(() => props.board.stations);
const count = computed(() => 2 + Math.max(0, ...stations.value.map((s) => s.between.length)));

const readings = (s: Station): number[] => {
  const own = [s.t0, ...s.between, s.t1];
  if (own.length === count.value) return own;
  return Array.from({ length: count.value }, (_, k) =>
    Math.round(s.t0 + ((s.t1 - s.t0) * k) / (count.value - 1)),
  );
};
function put(i: number, values: Partial<Station>): void {
  emit("put", "measures", { stations: stations.value.map((s, k) => (k === i ? { ...s, ...values } : s)) });
}
function thick(i: number, k: number, value: number): void {
  const now = readings(stations.value[i]!);
  now[k] = value;
  put(i, { t0: now[0]!, t1: now.at(-1)!, between: now.slice(1, -1) });
}
function moved(i: number, x: number): void {
  if (i > 0 && i < stations.value.length - 1) put(i, { x });
}
function across(by: number): void {
  const wanted = Math.min(9, Math.max(2, count.value + by));
  emit("put", "thickness across", {
    stations: stations.value.map((s) => {
      const own = [s.t0, ...s.between, s.t1];
      const at = (v: number) => {
        const k = Math.min(Math.floor(v * (own.length - 1)), own.length - 2);
        return Math.round(own[k]! + (v * (own.length - 1) - k) * (own[k + 1]! - own[k]!));
      };
      return { ...s, between: Array.from({ length: wanted - 2 }, (_, k) => at((k + 1) / (wanted - 1))) };
    }),
  });
}
function add(): void {
  const s = stations.value;
  let at = 0;
  for (let i = 1; i < s.length; i++) if (s[i]!.x - s[i - 1]!.x > s[at + 1]!.x - s[at]!.x) at = i - 1;
  const [a, b] = [s[at]!, s[at + 1]!];
  const mid = (p: number, q: number) => Math.round((p + q) / 2);
  const [ra, rb] = [readings(a), readings(b)];
  const between: Station = {
    x: mid(a.x, b.x),
    y0: mid(a.y0, b.y0),
    y1: mid(a.y1, b.y1),
    t0: mid(a.t0, b.t0),
    t1: mid(a.t1, b.t1),
    between: ra.slice(1, -1).map((t, k) => mid(t, rb[k + 1]!)),
  };
  emit("put", "a place measured", { stations: [...s.slice(0, at + 1), between, ...s.slice(at + 1)] });
}
const word = (k: number): string =>
  k === 0
    ? t("Thick, datum edge")
    : k === count.value - 1
      ? t("Thick, far edge")
      : count.value === 3
        ? t("Thick, middle")
        : t("Thick, {k} of {count} across", { k, count: count.value - 1 });
function aim(i: number, k: number): void {
  const s = stations.value[i]!;
  const y = Math.round(s.y0 + ((s.y1 - s.y0) * k) / (count.value - 1));
  target.value = {
    kind: "thickness",
    says: `${word(k).toLowerCase()} at ${show(s.x, props.system)}`,
    x: s.x,
    y,
    put: (value) => thick(i, k, value),
  };
}
</script>

<template>
  <div class="stations">
    <div v-for="(s, i) in stations" :key="i" class="station">
      <MeasureField
        :label="i === 0 ? $t('Datum end') : i === stations.length - 1 ? $t('Far end') : $t('At')"
        :system="system"
        :model-value="s.x"
        @update:model-value="moved(i, $event)"
      />
      <MeasureField
        :label="$t('Datum edge')"
        :system="system"
        signed
        :model-value="s.y0"
        @update:model-value="put(i, { y0: $event })"
      />
      <MeasureField
        :label="$t('Far edge')"
        :system="system"
        signed
        :model-value="s.y1"
        @update:model-value="put(i, { y1: $event })"
      />
      <MeasureField
        v-for="(reading, k) in readings(s)"
        :key="k"
        :label="word(k)"
        :system="system"
        :model-value="reading"
        @focusin="aim(i, k)"
        @update:model-value="thick(i, k, $event)"
      />
      <ElButton
        v-if="i && i < stations.length - 1"
        class="act"
        :aria-label="$t('Remove the place at {length}', { length: show(s.x, system) })"
        @click="emit('put', $t('a place less'), { stations: stations.filter((_, n) => n !== i) })"
      >
        ×
      </ElButton>
    </div>
    <p class="more">
      <ElButton class="act" @click="add">{{ $t("Measure one more place") }}</ElButton>
      <ElButton class="act quiet" :disabled="count >= 9" @click="across(1)">{{
        $t("One more thickness across")
      }}</ElButton>
      <ElButton v-if="count > 2" class="act quiet" @click="across(-1)">{{ $t("One fewer across") }}</ElButton>
    </p>
  </div>
</template>

<style scoped>
.stations {
  display: flex;
  flex-direction: column;
  gap: 0.7rem;
}
.station {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(7.6rem, 1fr));
  gap: 0.8rem;
  align-items: end;
}
.station .act {
  width: 48px;
}
.more {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
@media (max-width: 640px) {
  .station {
    grid-template-columns: repeat(2, minmax(0, 1fr));
    border-bottom: 1px solid var(--ink-faint);
    padding-bottom: 0.8rem;
  }
}
</style>

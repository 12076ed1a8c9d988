<script setup lang="ts">
/** Moisture read at one or more places of the board, day by day. */
import { ElButton, ElMessage } from "element-plus";
import { computed, ref } from "vue";
import type { Board } from "../../api/client";
import { target, today } from "../../api/instruments";
import { useProject } from "../../api/project";
import { edges } from "../../board/geometry";
import { show, TICKS_PER_INCH } from "../../measure";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import DayField from "../../controls/fields/DayField.vue";
import { t } from "../../i18n/i18n";

const props = defineProps<{ board: Board }>();
const emit = defineEmits<{ put: [string, Partial<Board>] }>();
const { project } = useProject();
const system = computed(() => project.value!.system);
const DAY = 86_400_000;
const PLACES = ["somewhere", "near end", "middle", "far end"] as const;
const percent = ref("");
const place = ref<(typeof PLACES)[number]>("somewhere");
const shownDay = (day: number) => new Date(day * DAY).toISOString().slice(0, 10);
const day = ref(shownDay(today()));

/** A hand's breadth in from an end: the end grain itself dries first and says little of the board. */
function at(): { x: number; y: number } {
  const L = props.board.length;
  const x = Math.round(
    {
      "near end": Math.min(L / 4, 12 * TICKS_PER_INCH),
      middle: L / 2,
      "far end": Math.max((3 * L) / 4, L - 12 * TICKS_PER_INCH),
      somewhere: L / 2,
    }[place.value],
  );
  const [low, high] = edges(props.board, x);
  return { x, y: Math.round((low + high) / 2) };
}
function keep(value: number): void {
  const on = Math.round(Date.parse(`${day.value}T00:00:00Z`) / DAY);
  if (!(value > 0 && value <= 100) || !Number.isFinite(on)) {
    ElMessage({ type: "error", message: t("Moisture is a figure in %, such as 11.5, and it needs a day") });
    return;
  }
  const where = place.value === "somewhere" ? { x: null, y: null } : at();
  const others = props.board.moisture.filter((m) => m.day !== on || m.x !== where.x || m.y !== where.y);
  emit("put", "moisture", {
    moisture: [...others, { percent: value, day: on, ...where }].sort((a, b) => a.day - b.day),
  });
  percent.value = "";
}
function forget(k: number): void {
  emit("put", "moisture", { moisture: props.board.moisture.filter((_, n) => n !== k) });
}
function aim(): void {
  target.value = { kind: "moisture", says: place.value, ...at(), put: keep };
}
</script>

<template>
  <div class="moisture">
    <label class="field percent"
      ><span>{{ $t("Moisture, %") }}</span
      ><input
        v-model="percent"
        class="line-input"
        inputmode="decimal"
        placeholder="11.5"
        @focus="aim"
        @keydown.enter.exact="keep(Number(percent.replace(',', '.')))"
    /></label>
    <ChoiceField
      v-model="place"
      :label="$t('Where')"
      :options="PLACES.map((p) => [p, p] as const)"
      @update:model-value="aim"
    />
    <DayField v-model="day" :label="$t('Read on')" />
    <ElButton class="act" @click="keep(Number(percent.replace(',', '.')))">{{
      $t("Keep the reading")
    }}</ElButton>
    <span v-for="(m, k) in board.moisture" :key="k" class="reading"
      >{{ $t("{percent} % on {day}", { percent: m.percent, day: shownDay(m.day) })
      }}<template v-if="m.x !== null"> {{ " " + $t("at {length}", { length: show(m.x, system) }) }}</template>
      <ElButton
        class="act quiet"
        :aria-label="$t('Forget the reading of {day}', { day: shownDay(m.day) })"
        @click="forget(k)"
      >
        ×
      </ElButton></span
    >
  </div>
</template>

<style scoped>
.moisture {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1.2rem;
  align-items: end;
}
.percent {
  width: 7rem;
}
.reading {
  white-space: nowrap;
}
</style>

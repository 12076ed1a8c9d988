<script setup lang="ts">
/** How the amount at one supplier moves with one change of the list or the grade. */
import { ElButton, ElProgress, ElTable, ElTableColumn } from "element-plus";
import "element-plus/es/components/progress/style/css";
import "element-plus/es/components/table/style/css";
import "element-plus/es/components/table-column/style/css";
import { computed } from "vue";
import { useBuying, useVariations, type Way, type Variation } from "../../../api/buying";
import type { Schemas } from "../../../api/client";
import { useProject } from "../../../api/project";
import { withErrorToast } from "../../../controls/withErrorToast";
import { show } from "../../../measure";
import { wood } from "../../../wood";
import { amount } from "../words";
import { t } from "../../../i18n/i18n";

const props = defineProps<{ way: Way; name: (id: string) => string }>();
const { pk, project } = useProject();
const of = computed(() => ({ supplier: props.way.supplier, grade: props.way.grade ?? "" }));
const { data } = useVariations(pk, of);
const { simulate } = useBuying(pk);
const list = computed(() => data.value ?? []);
const running = computed(() => list.value.filter((w) => w.done < w.trips && !w.trouble));
/** There is more to simulate: the list itself was bought more often than with the change. */
const behind = computed(() => list.value.some((w) => w.done < props.way.done));

const ask = () =>
  withErrorToast(async () => {
    for (const w of list.value)
      await simulate.mutateAsync({
        ...of.value,
        grade: of.value.grade as "",
        use_hand: false,
        trips: props.way.done,
        variation: w.variation,
      });
  });
function said(w: Variation): string {
  const { kind, part, to, grade } = w.variation;
  if (kind === "grade") return t("One grade up: {grade}", { grade });
  const length = show(to ?? 0, project.value!.system, true);
  if (kind === "stave")
    return t("Staves of {part} up to {length} wide", { part: props.name(part ?? ""), length });
  return t("{part} of two lengths of {length}, finger-jointed", { part: props.name(part ?? ""), length });
}
/** A difference with its sign, and how far it may be off. */
function differs(a: Schemas["Amount"] | undefined, as: (n: number) => string): string {
  if (!a) return "–";
  if (Math.abs(a.value) <= a.error) return t("no clear difference (± {error})", { error: as(a.error) });
  const sign = a.value < 0 ? "−" : "+";
  return `${sign}${as(Math.abs(a.value))} ± ${as(a.error)}`;
}
const feet = (n: number) => wood(n, project.value!.system);
</script>

<template>
  <section v-if="list.length" class="variations">
    <h2>{{ $t("What would change it") }}</h2>
    <ElTable :data="list">
      <ElTableColumn :label="$t('If')" min-width="280">
        <template #default="{ row }">{{ said(row as Variation) }}</template>
      </ElTableColumn>
      <ElTableColumn :label="$t('As it comes')" align="right" width="230">
        <template #default="{ row }">{{ differs(row.moved?.come, feet) }}</template>
      </ElTableColumn>
      <ElTableColumn :label="$t('Picked')" align="right" width="230">
        <template #default="{ row }">{{ differs(row.moved?.picked, feet) }}</template>
      </ElTableColumn>
      <ElTableColumn :label="$t('Money, picked')" align="right" width="230">
        <template #default="{ row }">{{ differs(row.moved?.money, amount) }}</template>
      </ElTableColumn>
      <ElTableColumn :label="$t('Trips')" align="right" width="90">
        <template #default="{ row }">{{ row.done }}</template>
      </ElTableColumn>
    </ElTable>
    <ElProgress
      v-if="running.length"
      :percentage="
        Math.round(
          (100 * list.reduce((sum, w) => sum + w.done, 0)) /
            Math.max(
              1,
              list.reduce((sum, w) => sum + w.trips, 0),
            ),
        )
      "
      :stroke-width="10"
    />
    <p class="soft">
      {{ $t("The same boards are drawn with the change and without it, trip by trip.") }}
      <ElButton v-if="behind" class="act" :disabled="running.length > 0" @click="ask">{{
        $t("Simulate these")
      }}</ElButton>
    </p>
  </section>
</template>

<style scoped>
.variations {
  margin-top: 1.4rem;
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
}
</style>

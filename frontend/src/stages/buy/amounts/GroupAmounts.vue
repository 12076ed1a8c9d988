<script setup lang="ts">
/** One wood and quarter at one supplier: how much to take for the chance asked for, and the curve. */
import { defineAsyncComponent, computed } from "vue";
import type { Schemas } from "../../../api/client";
import type { System } from "../../../measure";
import { wood } from "../../../wood";
import { counted, perCent } from "../words";
import { t } from "../../../i18n/i18n";

const ChanceChart = defineAsyncComponent(() => import("./ChanceChart.vue"));
const props = defineProps<{
  group: Schemas["GroupAmount"];
  perFoot: number | null;
  chance: number;
  whole: number;
  system: System;
  name: (id: string) => string;
}>();
const curve = (pairs: Schemas["GroupAmount"]["come_curve"]) => pairs as unknown as [number, number][];
const missed = computed(() => Object.keys(props.group.left_out).length);
const boards = (n: number) => t("{n} board | {n} boards", n);
const said = (a: Schemas["Amount"] | null | undefined) =>
  a ? `${wood(a.value, props.system)} ± ${wood(a.error, props.system)}` : t("not enough ever");
</script>

<template>
  <div class="group">
    <div>
      <h3>{{ group.key }}</h3>
      <dl>
        <dt>{{ $t("Picked from a pile of {pile}", { pile: group.pile }) }}</dt>
        <dd>
          <b>{{ said(group.picked) }}</b><span class="soft">
            {{
              " " + $t("in about {picked_boards} boards", { picked_boards: group.picked_boards.toFixed(1) })
            }}</span
          >
        </dd>
        <dt>{{ $t("Taken as it comes, until there is at least") }}</dt>
        <dd>
          <b>{{ said(group.come) }}</b><span v-if="group.come_boards" class="soft">
            {{
              " " + $t("in {come_boards}", { come_boards: boards(Math.ceil(group.come_boards.value)) })
            }}</span
          >
        </dd>
      </dl>
      <p v-if="missed" class="note">
        {{
          $t(
            "Hard to find: {parts} trip of {trips} without a board for it. | Hard to find: {parts} trips of {trips} without a board for them.",
            { parts: counted(group.left_out, name), trips: group.trips },
            missed,
          )
        }}
      </p>
      <p class="soft">
        {{ $t("From {trips} trips; ± holds with nine chances of ten.", { trips: group.trips }) }}
        <template v-if="chance > whole + 0.001">{{
          $t("Each wood by itself needs {chance} for all of them to come to {whole}.", {
            chance: perCent(chance),
            whole: perCent(whole),
          })
        }}</template>
      </p>
    </div>
    <ChanceChart
      :come="curve(group.come_curve)"
      :picked="curve(group.picked_curve)"
      :chance="chance"
      :system="system"
      :label="$t('Chance that an amount of {key} covers the list', { key: group.key })"
    />
  </div>
</template>

<style scoped>
.group {
  display: grid;
  grid-template-columns: minmax(18rem, 26rem) minmax(0, 1fr);
  gap: 1rem 2rem;
  padding: 1rem 0;
  border-bottom: 1px solid var(--ink-faint);
}
dt {
  color: var(--ink-soft);
  font-size: 0.85rem;
  margin-top: 0.5rem;
}
dd {
  margin: 0;
  font-size: 1.15rem;
}
@media (max-width: 800px) {
  .group {
    grid-template-columns: 1fr;
  }
}
</style>

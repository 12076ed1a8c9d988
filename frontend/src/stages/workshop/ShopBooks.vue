<script setup lang="ts">
/** The books of all projects made in a workshop: where their wood went, planned beside real. */
import { keepPreviousData, useQuery } from "@tanstack/vue-query";
import { ElEmpty, ElSegmented, ElSkeleton } from "element-plus";
import "element-plus/es/components/skeleton/style/css";
import "element-plus/es/components/empty/style/css";
import "element-plus/es/components/segmented/style/css";
import { computed, ref } from "vue";
import { api, type Schemas } from "../../api/client";
import type { System } from "../../measure";
import { wood, woodFigure, woodUnit } from "../../wood";
import { perCent } from "../buy/words";
import YieldChart from "./YieldChart.vue";
import { money } from "../../money";
import { t } from "../../i18n/i18n";

type Group = Schemas["GroupBody"];
const props = defineProps<{ workshop: number; system: System }>();
const BY = [
  { label: t("Wood"), value: "wood" },
  { label: t("Grade"), value: "grade" },
  { label: t("Who sold it"), value: "supplier" },
  { label: t("Month"), value: "month" },
  { label: t("Project"), value: "project" },
];
const by = ref<"wood" | "grade" | "supplier" | "month" | "project">("wood");
const { data } = useQuery({
  queryKey: computed(() => ["shop-books", props.workshop, by.value]),
  queryFn: async () =>
    (
      await api.GET("/api/workshops/{workshop}/books", {
        params: { path: { workshop: props.workshop }, query: { by: by.value } },
      })
    ).data!,
  placeholderData: keepPreviousData,
});
const whole = computed(() => data.value?.together);
const shown = computed(
  () =>
    data.value?.categories.filter(
      (c) => (whole.value?.real[c] ?? 0) + (whole.value?.planned[c] ?? 0) > 0.0005,
    ) ?? [],
);
const rows = computed<{ group: Group; last: boolean }[]>(() =>
  data.value
    ? [
        ...data.value.groups.map((group) => ({ group, last: false })),
        { group: { ...data.value.together, name: t("Together") }, last: true },
      ]
    : [],
);
const file = (form: string) => `/api/workshops/${props.workshop}/books-file?form=${form}&by=${by.value}`;
const share = (value: number | null) => (value === null ? "–" : perCent(value));
const feet = (value: number) => wood(value, props.system);
const plain = (value: number) => woodFigure(value, props.system);
</script>

<template>
  <ElSkeleton v-if="!data" :rows="6" animated />
  <div v-else-if="whole">
    <ElEmpty
      v-if="!data.groups.length"
      :image-size="60"
      :description="
        $t(
          'Nothing has been cut yet. What the steps ticked off at the machine take of a board is entered here.',
        )
      "
    />
    <template v-else>
      <div class="head">
        <ElSegmented v-model="by" :options="BY" :aria-label="$t('Put together by')" />
        <a class="act" :href="file('csv')" download>{{ $t("CSV") }}</a>
        <a class="act" :href="file('xlsx')" download>{{ $t("Workbook") }}</a>
        <a class="act" :href="file('pdf')" download>{{ $t("PDF") }}</a>
      </div>
      <div class="figures">
        <div>
          <span class="figure">{{ share(whole.real_yield) }}</span><span class="label">{{
            $t("of the wood of boards cut up became parts; planned {planned_yield}", {
              planned_yield: share(whole.planned_yield),
            })
          }}</span>
        </div>
        <div>
          <span class="figure">{{ feet(whole.rough) }}</span><span class="label">{{
            $t("cut into, {n} board | cut into, {n} boards", whole.boards)
          }}</span>
        </div>
        <div>
          <span class="figure">{{ money(whole.price) }}</span><span class="label">{{
            $t("paid for them")
          }}</span>
        </div>
      </div>
      <YieldChart v-if="whole.real_yield !== null" :groups="data.groups" />
      <div class="scroll" tabindex="0" role="region" :aria-label="$t('Where the wood of all projects went')">
        <table class="ruled">
          <thead>
            <tr>
              <th>{{ BY.find((b) => b.value === by)!.label }}</th>
              <th class="num">{{ $t("boards") }}</th>
              <th class="num">{{ $t("rough") }}</th>
              <th v-for="c in shown" :key="c" class="num">{{ c }}</th>
              <th class="num">{{ $t("yield") }}</th>
              <th class="num">{{ $t("faults found") }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="{ group, last } in rows" :key="`${last} ${group.name}`" :class="{ last }">
              <td>
                <b>{{ group.name }}</b>
              </td>
              <td class="num">{{ group.boards }}</td>
              <td class="num">{{ plain(group.rough) }}</td>
              <td v-for="c in shown" :key="c" class="num">
                {{ plain(group.real[c]!) }}<span class="soft planned">{{ plain(group.planned[c]!) }}</span>
              </td>
              <td class="num">
                {{ share(group.real_yield)
                }}<span class="soft planned">{{ share(group.planned_yield) }}</span>
              </td>
              <td class="num">{{ group.faults }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="soft">
        {{
          $t(
            "In {system}: in each field what really came of the wood, and under it what was planned. What is in work becomes something else yet; yield is told of boards that are cut up.",
            { system: woodUnit(system) },
          )
        }}
      </p>
      <section v-if="whole.lost.length" :aria-label="$t('Lost to error')">
        <h2>{{ $t("Lost to error") }}</h2>
        <ul>
          <li v-for="l in whole.lost" :key="l.piece">
            <b>{{ l.piece }}</b>, {{ feet(l.feet) }}: {{ l.why || $t("no reason written") }}
          </li>
        </ul>
      </section>
    </template>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.6rem;
  margin-bottom: 1rem;
}
.scroll {
  overflow-x: auto;
  margin-top: 1rem;
}
.planned {
  display: block;
}
.last td {
  border-top: 2px solid var(--ink);
}
</style>

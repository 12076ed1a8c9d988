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

type Group = Schemas["GroupBody"];
const props = defineProps<{ workshop: number; system: System }>();
const BY = [
  { label: "Wood", value: "wood" },
  { label: "Grade", value: "grade" },
  { label: "Who sold it", value: "supplier" },
  { label: "Month", value: "month" },
  { label: "Project", value: "project" },
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
        { group: { ...data.value.together, name: "Together" }, last: true },
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
      description="Nothing has been cut yet. What the steps ticked off at the machine take of a board is entered here."
    />
    <template v-else>
      <div class="head">
        <ElSegmented v-model="by" :options="BY" aria-label="Put together by" />
        <a class="act" :href="file('csv')" download>CSV</a>
        <a class="act" :href="file('xlsx')" download>Workbook</a>
        <a class="act" :href="file('pdf')" download>PDF</a>
      </div>
      <div class="figures">
        <div>
          <span class="figure">{{ share(whole.real_yield) }}</span><span class="label"
            >of the wood of boards cut up became parts; planned {{ share(whole.planned_yield) }}</span
          >
        </div>
        <div>
          <span class="figure">{{ feet(whole.rough) }}</span><span class="label"
            >cut into, {{ whole.boards }} board{{ whole.boards === 1 ? "" : "s" }}</span
          >
        </div>
        <div>
          <span class="figure">{{ money(whole.price) }}</span><span class="label">paid for them</span>
        </div>
      </div>
      <YieldChart v-if="whole.real_yield !== null" :groups="data.groups" />
      <div class="scroll" tabindex="0" role="region" aria-label="Where the wood of all projects went">
        <table class="ruled">
          <thead>
            <tr>
              <th>{{ BY.find((b) => b.value === by)!.label }}</th>
              <th class="num">boards</th>
              <th class="num">rough</th>
              <th v-for="c in shown" :key="c" class="num">{{ c }}</th>
              <th class="num">yield</th>
              <th class="num">faults found</th>
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
        In {{ woodUnit(system) }}: in each field what really came of the wood, and under it what was planned.
        What is in work becomes something else yet; yield is told of boards that are cut up.
      </p>
      <section v-if="whole.lost.length" aria-label="Lost to error">
        <h2>Lost to error</h2>
        <ul>
          <li v-for="l in whole.lost" :key="l.piece">
            <b>{{ l.piece }}</b>, {{ feet(l.feet) }}: {{ l.why || "no reason written" }}
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

<script setup lang="ts">
/** What this workshop has learned of itself: each figure beside the usual, how sure it is, and its switch. */
import { useQuery } from "@tanstack/vue-query";
import { ElEmpty, ElSwitch, ElTable, ElTableColumn } from "element-plus";
import "element-plus/es/components/empty/style/css";
import "element-plus/es/components/table/style/css";
import "element-plus/es/components/table-column/style/css";
import { computed } from "vue";
import { api } from "../../api/client";
import { GROUPS, restsOn, told, type Learned } from "./figures";

const props = defineProps<{ workshop: number }>();
/** What makes the keys that are switched off of those that are now. */
const emit = defineEmits<{ unused: [(now: string[]) => string[]] }>();
const { data } = useQuery({
  queryKey: computed(() => ["learned", props.workshop]),
  queryFn: async () =>
    (await api.GET("/api/workshops/{workshop}/learned", { params: { path: { workshop: props.workshop } } }))
      .data!,
});
const groups = computed(() =>
  GROUPS.map((g) => ({ ...g, figures: data.value?.figures.filter((f) => f.kind === g.kind) ?? [] })).filter(
    (g) => g.figures.length,
  ),
);
function turn(one: Learned, on: boolean): void {
  emit("unused", (now) => [...now.filter((k) => k !== one.key), ...(on ? [] : [one.key])]);
}
</script>

<template>
  <div v-if="data">
    <p class="soft">
      Learned from what the log says was done, never at a stroke: a figure leaves its usual value the further,
      the more steps and projects speak for it. A timer that ran over lunch, or one odd project, hardly moves
      it.
    </p>
    <ElEmpty
      v-if="!groups.length"
      :image-size="60"
      description="Nothing yet. Tick steps off at the machine, and what they took is learned from."
    />
    <section v-for="g in groups" :key="g.kind" :aria-label="g.title">
      <h2>{{ g.title }}</h2>
      <p class="soft">{{ g.says }}.</p>
      <ElTable :data="g.figures" size="large">
        <ElTableColumn :label="g.kind === 'minutes' || g.kind === 'passes' ? 'At' : 'Wood'" min-width="140">
          <template #default="{ row }">
            <b>{{ row.of }}</b>
          </template>
        </ElTableColumn>
        <ElTableColumn label="Usual" width="150" align="right">
          <template #default="{ row }">{{ told(row as Learned).usual }}</template>
        </ElTableColumn>
        <ElTableColumn label="Here" width="150" align="right">
          <template #default="{ row }">
            <b>{{ told(row as Learned).value }}</b>
          </template>
        </ElTableColumn>
        <ElTableColumn :label="`With ${Math.round(data.sure * 100)} % chance`" width="160" align="right">
          <template #default="{ row }">{{ told(row as Learned).between }}</template>
        </ElTableColumn>
        <ElTableColumn label="Rests on" min-width="170">
          <template #default="{ row }">{{ restsOn(row as Learned) }}</template>
        </ElTableColumn>
        <ElTableColumn label="Used" width="90" align="center">
          <template #default="{ row }">
            <ElSwitch
              :model-value="row.used"
              :aria-label="`${g.title} of ${row.of} is used`"
              @change="turn(row as Learned, !!$event)"
            />
          </template>
        </ElTableColumn>
      </ElTable>
    </section>
  </div>
</template>

<style scoped>
section {
  margin-top: 1.6rem;
}
h2 {
  margin-bottom: 0;
}
h2 + p {
  margin-top: 0.2rem;
}
</style>

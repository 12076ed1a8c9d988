<script setup lang="ts">
/** What this workshop has learned of itself: each figure beside the usual, how sure it is, and its switch. */
import { ElButton, ElEmpty, ElSwitch, ElTable, ElTableColumn } from "element-plus";
import "element-plus/es/components/empty/style/css";
import "element-plus/es/components/table/style/css";
import "element-plus/es/components/table-column/style/css";
import { computed } from "vue";
import { useLearned } from "../../api/learned";
import Fig from "../../controls/Fig.vue";
import { showUnit, upOnRule, type System } from "../../measure";
import { GROUPS, nameOf, restsOn, told, type Learned } from "../../controls/learnedFigures";

const props = defineProps<{ workshop: number; system: System; over: number }>();
/** What makes the keys that are switched off of those that are now. */
const emit = defineEmits<{ unused: [(now: string[]) => string[]]; over: [number] }>();
const { data } = useLearned(computed(() => props.workshop));
const groups = computed(() =>
  GROUPS.map((g) => ({ ...g, figures: data.value?.figures.filter((f) => f.kind === g.kind) ?? [] })).filter(
    (g) => g.figures.length,
  ),
);
const enough = (one: Learned) => upOnRule(one.value, props.system);
function turn(one: Learned, on: boolean): void {
  emit("unused", (now) => [...now.filter((k) => k !== one.key), ...(on ? [] : [one.key])]);
}
</script>

<template>
  <div v-if="data">
    <p class="soft">
      {{
        $t(
          "Learned from what the log says was done, never at a stroke: a figure leaves its usual value the further, the more steps and projects speak for it. A timer that ran over lunch, or one odd project, hardly moves it.",
        )
      }}
    </p>
    <ElEmpty
      v-if="!groups.length"
      :image-size="60"
      :description="$t('Nothing yet. Tick steps off at the machine, and what they took is learned from.')"
    />
    <section v-for="g in groups" :key="g.kind" :aria-label="g.title">
      <h2>{{ g.title }}</h2>
      <p class="soft">{{ g.says }}.</p>
      <ElTable :data="g.figures" size="large">
        <ElTableColumn :label="g.of" min-width="140">
          <template #default="{ row }">
            <b>{{ nameOf(row as Learned) }}</b>
          </template>
        </ElTableColumn>
        <ElTableColumn :label="$t('Usual')" width="150" align="right">
          <template #default="{ row }"><Fig :text="told(row as Learned, system).usual" /></template>
        </ElTableColumn>
        <ElTableColumn :label="$t('Here')" width="150" align="right">
          <template #default="{ row }">
            <b><Fig :text="told(row as Learned, system).value" /></b>
          </template>
        </ElTableColumn>
        <ElTableColumn
          :label="$t('With {sure} % chance', { sure: Math.round(data.sure * 100) })"
          width="160"
          align="right"
        >
          <template #default="{ row }"><Fig :text="told(row as Learned, system).between" /></template>
        </ElTableColumn>
        <ElTableColumn :label="$t('Rests on')" min-width="170">
          <template #default="{ row }">{{ restsOn(row as Learned) }}</template>
        </ElTableColumn>
        <ElTableColumn v-if="g.kind === 'movement'" :label="$t('The first visit leaves')" min-width="190">
          <template #default="{ row }">
            <span v-if="enough(row as Learned) === over" class="soft">{{ $t("as much") }}</span>
            <ElButton v-else class="act" @click="emit('over', enough(row as Learned))"
              >{{ $t("Leave") }} <Fig :text="showUnit(enough(row as Learned), system)"
            /></ElButton>
          </template>
        </ElTableColumn>
        <ElTableColumn :label="$t('Used')" width="90" align="center">
          <template #default="{ row }">
            <ElSwitch
              :model-value="row.used"
              :aria-label="$t('{title} of {row} is used', { title: g.title, row: nameOf(row as Learned) })"
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

<script setup lang="ts">
/** Lengths of a section and sheets that a supplier sells to size, by their true sizes. */
import { ElButton, ElInputNumber, ElTable, ElTableColumn } from "element-plus";
import "element-plus/es/components/table/style/css";
import "element-plus/es/components/table-column/style/css";
import { computed, ref } from "vue";
import type { Supplier } from "../../../api/buying";
import { useProject } from "../../../api/project";
import ChoiceField from "../../../controls/fields/ChoiceField.vue";
import WoodField from "../../../controls/fields/WoodField.vue";
import Len from "../../../controls/Len.vue";
import MeasureField from "../../../controls/MeasureField.vue";
import { TICKS_PER_INCH as IN } from "../../../measure";

const props = defineProps<{ supplier: Supplier; find: string }>();
const emit = defineEmits<{ save: [Supplier] }>();
const { project } = useProject();
type Line = Supplier["finished"][number];
const KINDS = [
  ["length", "a length"],
  ["sheet", "a sheet"],
] as const;
const rows = computed(() => {
  const words = props.find.trim().toLowerCase();
  return props.supplier.finished
    .map((line, index) => ({ ...line, index }))
    .filter((line) => !words || line.species.toLowerCase().includes(words));
});
const write = (finished: Line[]) => emit("save", { ...props.supplier, finished });
function ask(index: number, asks: number | null | undefined): void {
  if (typeof asks !== "number" || asks === Number(props.supplier.finished[index]!.asks)) return;
  write(props.supplier.finished.map((line, i) => (i === index ? { ...line, asks } : line)));
}
const drop = (index: number) => write(props.supplier.finished.filter((_, i) => i !== index));

/** One that is being written down. */
const fresh = ref<Line>();
const begin = () =>
  (fresh.value = {
    species: "",
    kind: "length",
    length: 96 * IN,
    width: (5 * IN) / 2,
    thickness: (3 * IN) / 4,
    asks: 0,
  });
function keep(): void {
  if (!fresh.value?.species) return;
  write([fresh.value, ...props.supplier.finished]);
  fresh.value = undefined;
}
</script>

<template>
  <section v-if="project" class="finished">
    <h3>
      {{ $t("Lengths and sheets") }}
      <ElButton v-if="!fresh" class="act" @click="begin">{{ $t("Add one") }}</ElButton>
    </h3>
    <form v-if="fresh" class="fresh" @submit.prevent="keep">
      <WoodField v-model="fresh.species" :label="$t('Wood or sheet')" />
      <ChoiceField v-model="fresh.kind" :label="$t('It is')" :options="KINDS" />
      <MeasureField v-model="fresh.length" :label="$t('Length')" :system="project.system" />
      <MeasureField v-model="fresh.width" :label="$t('Width')" :system="project.system" />
      <MeasureField v-model="fresh.thickness" :label="$t('Thickness')" :system="project.system" />
      <label class="asks"
        ><span>{{ $t("One costs") }}</span
        ><ElInputNumber v-model="fresh.asks as number" :min="0" :precision="2" :aria-label="$t('One costs')"
      /></label>
      <ElButton class="act lead" native-type="submit" :disabled="!fresh.species">{{
        $t("Keep it")
      }}</ElButton>
      <ElButton class="act quiet" @click="fresh = undefined">{{ $t("Never mind") }}</ElButton>
    </form>
    <ElTable v-if="rows.length" :data="rows" height="18rem" size="small">
      <ElTableColumn prop="species" :label="$t('Wood')" min-width="140" />
      <ElTableColumn :label="$t('True size')" min-width="210">
        <template #default="{ row }">
          <Len :ticks="row.length" :system="project.system" bare /> ×
          <Len :ticks="row.width" :system="project.system" bare /> ×
          <Len :ticks="row.thickness" :system="project.system" />
        </template>
      </ElTableColumn>
      <ElTableColumn :label="$t('It is')" width="100">
        <template #default="{ row }">{{ row.kind === "sheet" ? $t("a sheet") : $t("a length") }}</template>
      </ElTableColumn>
      <ElTableColumn :label="$t('One costs')" width="190">
        <template #default="{ row }"
          ><ElInputNumber
            :model-value="Number(row.asks)"
            :min="0"
            :precision="2"
            :aria-label="$t('{species} {kind} costs', { species: row.species, kind: row.kind })"
            @change="ask(row.index, $event)"
        /></template>
      </ElTableColumn>
      <ElTableColumn width="80">
        <template #default="{ row }"
          ><ElButton
            class="act quiet"
            :aria-label="$t('Take this {species} off', { species: row.species })"
            @click="drop(row.index)"
            >✕</ElButton
          ></template
        >
      </ElTableColumn>
    </ElTable>
  </section>
</template>

<style scoped>
.finished {
  margin: 1rem 0;
}
.fresh {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
  align-items: end;
  margin-bottom: 0.8rem;
}
.fresh > :deep(.field) {
  min-width: 9rem;
}
h3 {
  margin-bottom: 0.6rem;
}
.asks {
  display: grid;
  gap: 0.2rem;
}
</style>

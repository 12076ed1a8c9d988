<script setup lang="ts">
/** Price books: where wood is bought, what it costs there, and how tickets are counted. */
import {
  ElButton,
  ElCollapse,
  ElCollapseItem,
  ElForm,
  ElFormItem,
  ElInput,
  ElInputNumber,
  ElMessage,
  ElOption,
  ElPopconfirm,
  ElSelect,
  ElSwitch,
  ElTable,
  ElTableColumn,
  type FormRules,
} from "element-plus";
import "element-plus/es/components/collapse/style/css";
import "element-plus/es/components/collapse-item/style/css";
import "element-plus/es/components/form/style/css";
import "element-plus/es/components/form-item/style/css";
import "element-plus/es/components/popconfirm/style/css";
import "element-plus/es/components/switch/style/css";
import "element-plus/es/components/table/style/css";
import "element-plus/es/components/table-column/style/css";
import { computed, ref } from "vue";
import { useBuying, useSuppliers, type Supplier } from "../../api/buying";
import { useProject } from "../../api/project";
import FileButton from "../../controls/fields/FileButton.vue";
import TextField from "../../controls/fields/TextField.vue";
import { withErrorToast } from "../../controls/withErrorToast";
import FinishedStockTable from "./finished/FinishedStockTable.vue";
import { t } from "../../i18n/i18n";

const { pk } = useProject();
const { data: suppliers } = useSuppliers();
const { putSupplier, dropSupplier, readPrices } = useBuying(pk);
const open = ref("");
const find = ref("");
const KINDS = [
  ["sawmill", "a sawmill"],
  ["yard", "a yard"],
  ["finished", t("finished stock")],
  ["milling", t("mills for others")],
] as const;
const STRAIGHT = [
  ["straight", t("lies straight")],
  ["usual", t("as usual")],
  ["wild", t("warps a good deal")],
] as const;
const PERS = [
  ["board foot", t("a board foot")],
  ["cubic metre", t("a cubic metre")],
  ["foot", t("a running foot")],
  ["metre", t("a running metre")],
  ["piece", "a piece"],
] as const;
const RULES: FormRules<Supplier> = {
  name: [{ required: true, message: t("It needs a name"), trigger: "change" }],
};
const save = (s: Supplier) => withErrorToast(async () => void (await putSupplier.mutateAsync(s)));
/** A field of a supplier written anew, if it changed. */
function set<K extends keyof Supplier>(s: Supplier, field: K, value: Supplier[K] | null | undefined): void {
  if (value !== null && value !== undefined && value !== "" && value !== s[field])
    void save({ ...s, [field]: value });
}
type Line = Supplier["prices"][number];
function setLine(s: Supplier, index: number, values: Partial<Line>): void {
  const line = s.prices[index]!;
  if (Object.entries(values).every(([name, value]) => value === line[name as keyof Line])) return;
  void save({ ...s, prices: s.prices.map((p, i) => (i === index ? { ...p, ...values } : p)) });
}
async function add(): Promise<void> {
  const taken = new Set((suppliers.value ?? []).map((s) => s.id));
  let n = 1;
  while (taken.has(`supplier-${n}`)) n++;
  const like = suppliers.value?.find((s) => s.kind === "yard") ?? suppliers.value?.[0];
  if (!like) return;
  await save({ ...like, id: `supplier-${n}`, name: t("Supplier {n}", { n }), note: "" });
  open.value = `supplier-${n}`;
}
function upload(file: File): void {
  void withErrorToast(async () => {
    await readPrices.mutateAsync(file);
    ElMessage({ type: "success", message: t("The prices are taken in") });
  });
}
const rows = computed(() => (s: Supplier) => {
  const words = find.value.trim().toLowerCase();
  return s.prices
    .map((p, index) => ({ ...p, index }))
    .filter((p) => !words || `${p.species} ${p.quarter} ${p.grade}`.toLowerCase().includes(words));
});
</script>

<template>
  <div>
    <div class="head">
      <ElButton class="act" @click="add">{{ $t("Another supplier") }}</ElButton>
      <FileButton accept=".csv,.xlsx,text/csv" @file="upload">{{ $t("Take prices in") }}</FileButton>
      <a class="act" href="/api/suppliers.csv" download>{{ $t("Prices as CSV") }}</a>
      <a class="act" href="/api/suppliers.xlsx" download>{{ $t("as a workbook") }}</a>
      <ElInput
        v-model="find"
        class="find"
        :placeholder="$t('Find a wood, quarter or grade')"
        clearable
        size="large"
      />
    </div>
    <ElCollapse v-model="open" accordion>
      <ElCollapseItem v-for="s in suppliers ?? []" :key="s.id" :name="s.id">
        <template #title
          ><b class="name">{{ s.name }}</b
          ><span class="soft">{{ s.note }}</span></template
        >
        <ElForm :model="s" :rules="RULES" label-position="top" class="form" @submit.prevent>
          <ElFormItem :label="$t('Name')" prop="name"
            ><TextField :model-value="s.name" @update:model-value="set(s, 'name', $event)"
          /></ElFormItem>
          <ElFormItem :label="$t('It is')"
            ><ElSelect :model-value="s.kind" :aria-label="$t('It is')" @change="set(s, 'kind', $event)"
              ><ElOption v-for="[v, word] in KINDS" :key="v" :value="v" :label="word" /></ElSelect
          ></ElFormItem>
          <ElFormItem :label="$t('Its wood')"
            ><ElSelect
              :model-value="s.straightness"
              :aria-label="$t('Its wood')"
              @change="set(s, 'straightness', $event)"
              ><ElOption v-for="[v, word] in STRAIGHT" :key="v" :value="v" :label="word" /></ElSelect
          ></ElFormItem>
          <ElFormItem :label="$t('Moisture, %')"
            ><ElInputNumber
              :model-value="s.moisture"
              :min="4"
              :max="40"
              :step="0.5"
              :aria-label="$t('Moisture in per cent')"
              @change="set(s, 'moisture', $event)"
          /></ElFormItem>
          <ElFormItem :label="$t('The trip there costs')"
            ><ElInputNumber
              :model-value="Number(s.trip)"
              :min="0"
              :aria-label="$t('The trip there costs')"
              @change="set(s, 'trip', $event)"
          /></ElFormItem>
          <ElFormItem :label="$t('and takes, hours')"
            ><ElInputNumber
              :model-value="s.trip_hours"
              :min="0"
              :step="0.25"
              :aria-label="$t('Hours the trip takes')"
              @change="set(s, 'trip_hours', $event)"
          /></ElFormItem>
          <ElFormItem :label="$t('Mills to a list, a bd ft (0: not)')"
            ><ElInputNumber
              :model-value="Number(s.milling)"
              :min="0"
              :step="0.25"
              :aria-label="$t('Milling to a list, for a board foot')"
              @change="set(s, 'milling', $event)"
          /></ElFormItem>
          <ElFormItem :label="$t('Tickets round the surface to whole feet')"
            ><ElSwitch
              :model-value="s.ticket.method === 'surface'"
              :aria-label="$t('Tickets round the surface to whole feet')"
              @change="set(s, 'ticket', { ...s.ticket, method: $event ? 'surface' : 'exact' })"
          /></ElFormItem>
          <ElFormItem :label="$t('Count whole feet of length')"
            ><ElSwitch
              :model-value="s.ticket.whole_feet"
              :aria-label="$t('Tickets count whole feet of length')"
              @change="set(s, 'ticket', { ...s.ticket, whole_feet: !!$event })"
          /></ElFormItem>
          <ElFormItem :label="$t('Width up to half inches')"
            ><ElSwitch
              :model-value="s.ticket.half_inches_up"
              :aria-label="$t('Tickets round the width up to half inches')"
              @change="set(s, 'ticket', { ...s.ticket, half_inches_up: !!$event })"
          /></ElFormItem>
          <ElFormItem :label="$t('Note')" class="wide"
            ><TextField
              :model-value="s.note"
              :maxlength="2000"
              @update:model-value="save({ ...s, note: $event })"
          /></ElFormItem>
        </ElForm>
        <ElTable :data="rows(s)" height="22rem" size="small">
          <ElTableColumn prop="species" :label="$t('Wood')" min-width="110" />
          <ElTableColumn prop="quarter" :label="$t('Quarter')" width="90" />
          <ElTableColumn prop="grade" :label="$t('Grade')" min-width="130" />
          <ElTableColumn prop="surfacing" :label="$t('Surfaced')" width="100" />
          <ElTableColumn :label="$t('Asks')" width="190">
            <template #default="{ row }"
              ><ElInputNumber
                :model-value="Number(row.asks)"
                :min="0"
                :precision="2"
                :step="row.per === 'cubic metre' ? 50 : 0.25"
                :aria-label="
                  $t('{species} {quarter} {grade} asks', {
                    species: row.species,
                    quarter: row.quarter,
                    grade: row.grade,
                  })
                "
                @change="typeof $event === 'number' && setLine(s, row.index, { asks: $event })"
            /></template>
          </ElTableColumn>
          <ElTableColumn :label="$t('for')" width="170">
            <template #default="{ row }"
              ><ElSelect
                :model-value="row.per"
                :aria-label="
                  $t('{species} {quarter} {grade} asks that for', {
                    species: row.species,
                    quarter: row.quarter,
                    grade: row.grade,
                  })
                "
                @change="setLine(s, row.index, { per: $event })"
                ><ElOption v-for="[per, word] in PERS" :key="per" :value="per" :label="word" /></ElSelect
            ></template>
          </ElTableColumn>
        </ElTable>
        <FinishedStockTable :supplier="s" :find="find" @save="save" />
        <ElPopconfirm
          :title="$t('Take {name} off the list?', { name: s.name })"
          :confirm-button-text="$t('Take it off')"
          :cancel-button-text="$t('Keep it')"
          width="260"
          @confirm="withErrorToast(async () => void (await dropSupplier.mutateAsync(s.id)))"
        >
          <template #reference
            ><ElButton class="act">{{ $t("Take it off the list") }}</ElButton></template
          >
        </ElPopconfirm>
      </ElCollapseItem>
    </ElCollapse>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 0.7rem;
  align-items: center;
  margin-bottom: 0.8rem;
}
.find {
  flex: 1 1 14rem;
  max-width: 22rem;
}
.name {
  margin-right: 0.8rem;
  font-size: 1.1rem;
}
.form {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(13rem, 1fr));
  gap: 0 1.2rem;
}
:deep(.el-collapse-item__header),
:deep(.el-collapse-item__content) {
  padding-inline: 0.8rem;
}
.wide {
  grid-column: 1 / -1;
}
</style>

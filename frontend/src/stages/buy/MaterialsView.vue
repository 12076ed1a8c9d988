<script setup lang="ts">
/** What the piece needs besides its boards, line by line, and what it costs. */
import { ElButton, ElEmpty, ElInputNumber } from "element-plus";
import "element-plus/es/components/empty/style/css";
import "element-plus/es/components/input-number/style/css";
import { computed, nextTick, useTemplateRef } from "vue";
import type { Schemas } from "../../api/client";
import { costOf, useMaterials, type Material } from "../../api/materials";
import { useProject } from "../../api/project";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import TextField from "../../controls/fields/TextField.vue";
import { showUnit } from "../../measure";
import { money } from "../../money";
import { t } from "../../i18n/i18n";

const props = defineProps<{ sheets: Schemas["SheetNeedBody"][]; lengths: Schemas["LengthNeedBody"][] }>();
const { pk, project } = useProject();
const { materials, change, cost } = useMaterials(pk);
const KINDS = ["hardware", "glue", "finish", "sheets", "lengths", "other"].map((k) => [k, k] as const);
const table = useTemplateRef("table");

/** Sheets and lengths that the list asks for and no line names yet. */
const fromList = computed<Material[]>(() => {
  const system = project.value?.system ?? "in";
  const at = (ticks: number) => showUnit(ticks, system);
  const found: Material[] = [
    ...props.sheets.map((s) => ({
      name: t("{species} sheet, {thickness}", { species: s.species, thickness: at(s.thickness) }),
      kind: "sheets" as const,
      count: s.sheets,
      each: 0,
      note: "",
    })),
    ...props.lengths.map((n) => ({
      name: t("{species}, {width} × {thickness}, {stock_length} long", {
        species: n.species,
        width: at(n.width),
        thickness: at(n.thickness),
        stock_length: at(n.stock_length),
      }),
      kind: "lengths" as const,
      count: n.lengths,
      each: 0,
      note: "",
    })),
  ];
  const named = new Set((materials.value ?? []).map((m) => m.name));
  return found.filter((m) => m.count > 0 && !named.has(m.name));
});

async function add(): Promise<void> {
  void change((now) => [...now, { name: "", kind: "hardware", count: 1, each: 0, note: "" }]);
  await nextTick();
  table.value?.querySelector<HTMLInputElement>("tbody tr:last-child input")?.focus();
}
function set(at: number, values: Partial<Material>): void {
  void change((now) => now.map((m, k) => (k === at ? { ...m, ...values } : m)));
}
</script>

<template>
  <div v-if="materials" class="materials">
    <ElEmpty
      v-if="!materials.length"
      :image-size="60"
      :description="
        $t('Hardware, glue, finish, sheets, lengths: a line each, with count and price. Books add them up.')
      "
    />
    <div v-else ref="table" class="scroll" tabindex="0" role="region" :aria-label="$t('Besides boards')">
      <table class="ruled">
        <thead>
          <tr>
            <th>{{ $t("What") }}</th>
            <th>{{ $t("Kind") }}</th>
            <th class="num">{{ $t("How many") }}</th>
            <th class="num">{{ $t("Price of one") }}</th>
            <th class="num">{{ $t("Together") }}</th>
            <th>{{ $t("Note") }}</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(m, k) in materials" :key="k">
            <td>
              <TextField
                :model-value="m.name"
                :aria-label="$t('What, line {k}', { k: k + 1 })"
                :placeholder="$t('butt hinge, brass')"
                @update:model-value="set(k, { name: $event })"
              />
            </td>
            <td>
              <ChoiceField
                :label="$t('Kind, line {k}', { k: k + 1 })"
                hide-label
                :options="KINDS"
                :model-value="m.kind"
                @update:model-value="set(k, { kind: $event as Material['kind'] })"
              />
            </td>
            <td class="num">
              <ElInputNumber
                :model-value="m.count"
                :min="0"
                :max="1000000"
                :controls="false"
                :aria-label="$t('How many, line {k}', { k: k + 1 })"
                @change="set(k, { count: $event ?? 0 })"
              />
            </td>
            <td class="num">
              <ElInputNumber
                :model-value="Number(m.each)"
                :min="0"
                :precision="2"
                :controls="false"
                :aria-label="$t('Price of one, line {k}', { k: k + 1 })"
                @change="set(k, { each: $event ?? 0 })"
              />
            </td>
            <td class="num">{{ money(costOf(m)) }}</td>
            <td>
              <TextField
                :model-value="m.note"
                :aria-label="$t('Note, line {k}', { k: k + 1 })"
                @update:model-value="set(k, { note: $event })"
              />
            </td>
            <td>
              <ElButton
                class="act quiet"
                :aria-label="$t('Remove line {k}: {name}', { k: k + 1, name: m.name })"
                @click="change((now) => now.filter((_, at) => at !== k))"
                >×</ElButton
              >
            </td>
          </tr>
        </tbody>
        <tfoot>
          <tr>
            <td colspan="4">
              <b>{{ $t("Together") }}</b>
            </td>
            <td class="num">
              <b>{{ money(cost) }}</b>
            </td>
            <td colspan="2"></td>
          </tr>
        </tfoot>
      </table>
    </div>
    <div class="after">
      <ElButton class="act lead" @click="add">{{ $t("Add a line") }}</ElButton>
      <ElButton v-if="fromList.length" class="act" @click="change((now) => [...now, ...fromList])">
        {{ $t("Take {fromList} from the list: sheets and lengths", { fromList: fromList.length }) }}
      </ElButton>
    </div>
  </div>
</template>

<style scoped>
.materials {
  max-width: 70rem;
}
.materials td {
  min-width: 7rem;
  vertical-align: middle;
}
.materials td:nth-child(2) {
  min-width: 9rem;
}
.materials td:first-child {
  min-width: 14rem;
}
.materials td:last-child {
  min-width: 0;
}
.after {
  display: flex;
  flex-wrap: wrap;
  gap: 0.7rem;
  margin-top: 1rem;
}
</style>

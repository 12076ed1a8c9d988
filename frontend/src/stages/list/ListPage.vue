<script setup lang="ts">
/** The cut list: the grid, the measures it hangs on, the foreman's questions, and the ways out of it. */
import { useEventListener } from "@vueuse/core";
import { ElButton } from "element-plus";
import { useQuery } from "@tanstack/vue-query";
import { computed, ref } from "vue";
import { useRoute } from "vue-router";
import { api } from "../../api/client";
import { useLayout } from "../../api/layout";
import { useProject } from "../../api/project";
import { inField } from "../../controls/keys";
import Len from "../../controls/Len.vue";
import RestNote from "../mill/RestNote.vue";
import ShopSheet from "../../controls/ShopSheet.vue";
import ChecksPanel from "./ChecksPanel.vue";
import DividerSheet from "./DividerSheet.vue";
import type { Order } from "./grid";
import LabelSheet from "./LabelSheet.vue";
import ListGrid from "./ListGrid.vue";
import MeasuresPanel from "./MeasuresPanel.vue";
import PastedList from "./PastedList.vue";
import { TICKS_PER_INCH } from "../../measure";
import MenuButton, { type MenuItem } from "../../controls/MenuButton.vue";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import { woodFigure, woodUnit } from "../../wood";
import { t } from "../../i18n/i18n";

const { pk, project } = useProject();
const route = useRoute();
const { data: layout } = useLayout(pk);
const pasted = ref("");
const sheet = ref<"" | "shop" | "divide" | "labels">("");
const panel = ref<"" | "measures" | "checks">("");
const order = ref<Order>("entered");
const filter = ref("");
const grid = ref<InstanceType<typeof ListGrid>>();
const asked = ref(String(route.query.part ?? ""));

const { data: checks } = useQuery({
  queryKey: computed(() => ["checks", pk.value]),
  queryFn: async () =>
    (await api.GET("/api/projects/{project}/checks", { params: { path: { project: pk.value } } })).data!
      .checks,
});
const BOARD_FOOT = 144 * TICKS_PER_INCH ** 3;
const totals = computed(() => {
  const parts = project.value?.parts ?? [];
  const solid = parts.filter((p) => p.stock === "board");
  return {
    pieces: parts.reduce((sum, p) => sum + p.quantity, 0),
    feet: solid.reduce((sum, p) => sum + (p.quantity * p.length * p.width * p.thickness) / BOARD_FOOT, 0),
    woods: [...new Set(parts.map((p) => p.species))],
    longest: Math.max(0, ...parts.map((p) => p.length)),
  };
});
function toggle(which: "measures" | "checks"): void {
  panel.value = panel.value === which ? "" : which;
}
function key(event: KeyboardEvent): void {
  if (inField(event) || event.ctrlKey || event.metaKey || event.altKey) return;
  const act: Record<string, () => void> = {
    n: () => grid.value?.focusNew(),
    m: () => toggle("measures"),
    c: () => toggle("checks"),
  };
  const found = act[event.key.toLowerCase()];
  if (!found) return;
  event.preventDefault();
  found();
}
function paste(event: ClipboardEvent): void {
  const text = event.clipboardData?.getData("text/plain") ?? "";
  const block = text.trim().split("\n").length > 1 || text.includes("\t");
  if (!block) return;
  event.preventDefault();
  if (!grid.value?.pasteBlock(text)) pasted.value = text;
}
useEventListener("keydown", key);
useEventListener("paste", paste);
const files = computed<MenuItem[]>(() => {
  const at = `/api/projects/${pk.value}`;
  return [
    { label: t("Cut list on paper, PDF"), href: `${at}/parts.pdf` },
    { label: t("Workbook, XLSX"), href: `${at}/parts.xlsx` },
    { label: t("Table, CSV"), href: `${at}/parts.csv` },
    { label: t("Outlines, DXF"), href: `${at}/parts.dxf` },
    { label: t("Labels for the parts, PDF"), act: () => (sheet.value = "labels") },
    { label: t("Job file"), href: `${at}/job.json` },
    { label: t("Print this list"), act: print },
  ];
});
function print(): void {
  window.print();
}
const ORDERS = [
  ["entered", t("as entered")],
  ["grouped", t("by wood and thickness")],
  ["longest", t("longest first")],
] as const;
</script>

<template>
  <section v-if="project" class="stage">
    <div class="stage-head">
      <h1>{{ $t("List") }}</h1>
      <div class="figures grow">
        <div>
          <span class="figure">{{ totals.pieces }}</span><span class="label">{{ $t("parts") }}</span>
        </div>
        <div>
          <span class="figure">{{ woodFigure(totals.feet, project.system, 2) }}</span><span class="label">{{
            $t("{system}, finished", { system: woodUnit(project.system) })
          }}</span>
        </div>
        <div v-if="totals.longest">
          <span class="figure"><Len :ticks="totals.longest" :system="project.system" /></span
          ><span class="label">{{ $t("longest") }}</span>
        </div>
      </div>
      <RouterLink
        v-if="project.parts.length"
        class="act lead"
        :to="{ name: project.boards.length ? 'boards' : 'buy', params: { project: pk } }"
        >{{ $t("Next: {boards}", { boards: project.boards.length ? $t("boards") : $t("buy") }) }}</RouterLink
      >
    </div>
    <div class="tools">
      <ElButton class="act" :class="{ on: panel === 'measures' }" @click="toggle('measures')">
        {{
          $t("Measures{measures}", {
            measures: project.measures.length ? ` (${project.measures.length})` : "",
          })
        }}
      </ElButton>
      <ElButton
        class="act"
        :class="{ on: panel === 'checks' }"
        :disabled="!checks?.length"
        @click="toggle('checks')"
      >
        <template v-if="checks?.length"
          ><b class="bang">!</b> {{ $t("{checks} to ask about", { checks: checks.length }) }}</template
        ><template v-else>{{ $t("Nothing to ask about") }}</template>
      </ElButton>
      <ElButton class="act" @click="sheet = 'divide'">{{ $t("Divide a length") }}</ElButton>
      <ElButton class="act" @click="sheet = 'shop'">{{ $t("Shop allowances") }}</ElButton>
      <span class="grow" />
      <ChoiceField
        v-model="order"
        class="small"
        :label="$t('Order of the list')"
        hide-label
        :options="ORDERS"
      />
      <input
        v-model="filter"
        class="line-input small"
        type="search"
        :placeholder="$t('only those with …')"
        :aria-label="$t('Show only parts with')"
      />
      <MenuButton :label="$t('Take it along')" :items="files" />
    </div>
    <p v-if="layout?.standing?.stale && project.parts.length" class="note stale">
      {{ $t("The plan was made before this change, and with it the milling steps and the books.") }}
      <RouterLink :to="{ name: 'layout', params: { project: pk } }">{{ $t("Lay out again") }}</RouterLink>
    </p>
    <RestNote />
    <MeasuresPanel v-if="panel === 'measures'" />
    <ChecksPanel
      v-if="panel === 'checks' && checks?.length"
      :checks="checks"
      @show="
        asked = '';
        filter = '';
        $nextTick(() => (asked = $event));
      "
    />
    <p v-if="!project.parts.length" class="first">
      {{
        $t("Type the first part into the row below, or paste rows from a spreadsheet anywhere on this page.")
      }}
      <RouterLink :to="{ name: 'draw', params: { project: pk } }">{{
        $t("Bring in a file, or start from a pattern")
      }}</RouterLink>.
    </p>
    <ListGrid ref="grid" :order="order" :filter="filter" :asked="asked" />
    <datalist id="woods">
      <option
        v-for="w in new Set([
          'white oak',
          'red oak',
          'ash',
          'walnut',
          'cherry',
          'hard maple',
          'beech',
          'yellow poplar',
          'yellow birch',
          ...totals.woods,
        ])"
        :key="w"
        :value="w"
      />
    </datalist>
    <PastedList v-if="pasted" :text="pasted" @close="pasted = ''" />
    <ShopSheet v-if="sheet === 'shop'" @close="sheet = ''" />
    <DividerSheet v-if="sheet === 'divide'" @close="sheet = ''" />
    <LabelSheet v-if="sheet === 'labels'" @close="sheet = ''" />
  </section>
</template>

<style scoped>
.first {
  font-size: 1.15rem;
  margin-bottom: 1rem;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem;
  margin-bottom: 0.8rem;
}
.tools .grow {
  flex: 1;
}
.small {
  width: 12rem !important;
}
.bang {
  color: var(--crayon-ink);
}
.stale {
  margin-bottom: 0.8rem;
}
@media print {
  .tools,
  .stale,
  .stage-head .act {
    display: none;
  }
}
</style>

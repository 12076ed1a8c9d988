<script setup lang="ts">
/** The grid of parts: typed, pasted into, filled down, many rows at once, all from the keyboard. */
import { computed, nextTick, ref, watch } from "vue";
import { useProject } from "../../api/project";
import Len from "../../controls/Len.vue";
import TermWord from "../../help/TermWord.vue";
import { COLUMNS, groupOf, ordered, type Order } from "./grid";
import "./grid.css";
import NewRow from "./NewRow.vue";
import PartRow from "./PartRow.vue";
import PartSheet from "./PartSheet.vue";
import { useCells } from "./useCells";
import { useEditing } from "./useEditing";

const props = defineProps<{ order: Order; filter: string; asked: string }>();
const { project } = useProject();
const system = computed(() => project.value!.system);
const rows = computed(() => ordered(project.value!.parts, props.order, props.filter));
const sheet = ref("");
const newRow = ref<InstanceType<typeof NewRow>>();
const { chosen, choose, change, formula, workOut, count, panel, remove } = useEditing(rows);
const { key, pasteBlock } = useCells(rows, chosen);
defineExpose({ pasteBlock, focusNew: () => newRow.value?.focus(), open: (id: string) => (sheet.value = id) });

watch(
  () => props.asked,
  async (id) => {
    if (!id) return;
    await nextTick();
    const row = document.querySelector<HTMLElement>(`tr[data-part="${CSS.escape(id)}"]`);
    row?.scrollIntoView({ block: "center" });
    row?.querySelector<HTMLElement>("td[data-column='name'] input")?.focus();
  },
  { immediate: true },
);
const columns = COLUMNS.length;
</script>

<template>
  <div v-if="project" class="grid-scroll">
    <table class="grid" @keydown="key">
      <thead>
        <tr>
          <th class="tick">
            <span class="sr">{{ $t("Chosen") }}</span>
          </th>
          <th>{{ $t("Mark") }}</th>
          <th class="w-name">{{ $t("Part") }}</th>
          <th class="num">{{ $t("Count") }}</th>
          <th class="num">{{ $t("Length") }}</th>
          <th class="num">{{ $t("Width") }}</th>
          <th class="num">{{ $t("Thickness") }}</th>
          <th>{{ $t("Wood") }}</th>
          <th>
            <TermWord term="faces">{{ $t("Faces") }}</TermWord>
          </th>
          <th>
            <TermWord term="run">{{ $t("Run") }}</TermWord>
          </th>
          <th>
            <TermWord term="panel">{{ $t("Panel") }}</TermWord>
          </th>
          <th class="num">
            <TermWord term="rough size">{{ $t("Rough size") }}</TermWord>
          </th>
          <th class="w-note">{{ $t("Note") }}</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <template v-for="(p, i) in rows" :key="p.id">
          <tr v-if="order === 'grouped' && (i === 0 || groupOf(rows[i - 1]!) !== groupOf(p))" class="group">
            <td :colspan="columns + 4">
              <b>{{ p.species }}</b>, <Len :ticks="p.thickness" :system="system" />
            </td>
          </tr>
          <PartRow
            :p="p"
            :shop="project.shop"
            :system="system"
            :chosen="chosen.has(p.id)"
            :work-out="workOut"
            @choose="choose($event, p.id)"
            @change="(what, values) => change(p, what, values)"
            @count="count(p, $event)"
            @formula="(field, text) => formula(p, field, text)"
            @panel="panel(p, $event)"
            @open="sheet = p.id"
            @remove="remove(p)"
          />
        </template>
        <NewRow ref="newRow" :system="system" />
      </tbody>
    </table>
    <PartSheet v-if="sheet" :part="sheet" @close="sheet = ''" @change="change" />
  </div>
</template>

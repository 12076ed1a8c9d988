<script setup lang="ts">
/** The project's named measures: change one and every size that is a formula over it follows. */
import { ElButton } from "element-plus";
import { ref } from "vue";
import type { Measure } from "../../api/client";
import { useProject } from "../../api/project";
import { show } from "../../measure";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import { t } from "../../i18n/i18n";

const { project, edit } = useProject();
const name = ref("");
const text = ref("");

function all(): Measure[] {
  return project.value!.measures.map(({ name, text, kind, note }) => ({ name, text, kind, note }));
}
function change(at: number, values: Partial<Measure>): void {
  const now = all();
  const before = now[at]!;
  if (Object.entries(values).every(([k, v]) => before[k as keyof Measure] === v)) return;
  now[at] = { ...before, ...values };
  void edit({ label: t("measure {name}", { name: before.name }), measures: now });
}
function remove(at: number): void {
  const now = all();
  const [gone] = now.splice(at, 1);
  void edit({ label: t("removal of measure {name}", { name: gone!.name }), measures: now });
}
async function add(): Promise<void> {
  if (!name.value.trim() || !text.value.trim()) return;
  const added = await edit({
    label: t("measure {name}", { name: name.value.trim() }),
    measures: [...all(), { name: name.value.trim(), text: text.value.trim(), kind: "length", note: "" }],
  });
  if (added) name.value = text.value = "";
}
const KINDS = [
  ["length", "length"],
  ["number", "number"],
] as const;
</script>

<template>
  <div v-if="project" class="panel">
    <p class="soft">
      {{ $t("Name a measure, then write sizes in the list as formulas over it:") }} <code>=W - 2 * stock</code
      >{{
        $t(
          ". Units, fractions, brackets and min, max, round, up, down work; a bare number is in the project's unit.",
        )
      }}
    </p>
    <table class="ruled">
      <thead>
        <tr>
          <th>{{ $t("Measure") }}</th>
          <th>{{ $t("Formula") }}</th>
          <th class="num">{{ $t("Comes to") }}</th>
          <th>{{ $t("What it is") }}</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="(m, i) in project.measures" :key="m.name" :data-measure="m.name">
          <td>
            <input
              class="line-input name"
              :value="m.name"
              :aria-label="$t('Name of the measure')"
              @change="change(i, { name: ($event.target as HTMLInputElement).value.trim() })"
            />
          </td>
          <td>
            <input
              class="line-input"
              :value="m.text"
              :aria-label="$t('Formula of {name}', { name: m.name })"
              @change="change(i, { text: ($event.target as HTMLInputElement).value.trim() })"
            />
          </td>
          <td class="num value">
            <template v-if="m.ticks !== null">{{ show(m.ticks, project.system, true) }}</template><template
              v-else-if="m.number !== null"
              >{{ Math.round(m.number * 1e5) / 1e5 }}</template
            ><template v-else>…</template>
          </td>
          <td>
            <input
              class="line-input"
              :value="m.note"
              :aria-label="$t('What {name} is', { name: m.name })"
              @change="change(i, { note: ($event.target as HTMLInputElement).value.trim() })"
            />
          </td>
          <td class="ends">
            <ChoiceField
              class="kind"
              :label="$t('Kind of {name}', { name: m.name })"
              hide-label
              :options="KINDS"
              :model-value="m.kind"
              @update:model-value="change(i, { kind: $event })"
            /><ElButton
              class="act quiet"
              :aria-label="$t('Remove {name}', { name: m.name })"
              @click="remove(i)"
              >×</ElButton
            >
          </td>
        </tr>
        <tr @keydown.enter.prevent="add">
          <td>
            <input v-model="name" class="line-input name" :aria-label="$t('New measure')" placeholder="W" />
          </td>
          <td>
            <input
              v-model="text"
              class="line-input"
              :aria-label="$t('Formula of the new measure')"
              placeholder="36"
            />
          </td>
          <td colspan="3">
            <ElButton class="act" :disabled="!name.trim() || !text.trim()" @click="add">{{
              $t("Add the measure")
            }}</ElButton>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.panel {
  background: var(--paper);
  border: 2px solid var(--ink);
  padding: 0.9rem 1rem;
  margin-bottom: 1rem;
  max-height: 24rem;
  overflow: auto;
}
.name {
  width: 7rem;
  font-weight: 760;
}
.value {
  font-weight: 620;
}
.ends {
  display: flex;
}
.kind {
  width: 6rem;
}
.panel td {
  vertical-align: middle;
  padding-block: 2px;
}
.panel .line-input {
  min-height: 36px;
  border-bottom-color: var(--ink-faint);
}
code {
  background: var(--plaster-deep);
  padding: 0 0.3rem;
}
</style>

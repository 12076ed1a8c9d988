<script setup lang="ts">
/** Two have changed the same thing: both are shown, and the person at this screen chooses. */
import { ElButton, ElDialog } from "element-plus";
import { computed } from "vue";
import { equal, type Clash } from "../api/edits";
import { conflict } from "../api/project";
import { show } from "../measure";

const LENGTHS = ["length", "width", "thickness", "joint_length"];
const WORDS: Record<Clash["what"], string> = {
  part: "Part",
  board: "Board",
  shop: "The shop",
  name: "The project's name",
  units: "How lengths are shown",
  measures: "The measures",
};
interface Row {
  field: string;
  theirs: string;
  mine: string;
}

function said(field: string, value: unknown): string {
  if (value === null || value === undefined) return "not there";
  if (LENGTHS.includes(field) && typeof value === "number") return show(value, conflict.value!.system, true);
  if (Array.isArray(value)) return `${value.length} of them`;
  return typeof value === "object" ? "changed" : String(value);
}
function rows(clash: Clash): Row[] {
  const { theirs, mine } = clash;
  if (typeof theirs !== "object" || typeof mine !== "object" || !theirs || !mine || Array.isArray(mine))
    return [{ field: WORDS[clash.what].toLowerCase(), theirs: said("", theirs), mine: said("", mine) }];
  const [now, new_] = [theirs as Record<string, unknown>, mine as Record<string, unknown>];
  const was = (clash.was ?? {}) as Record<string, unknown>;
  return Object.keys(new_)
    .filter((field) => !equal(now[field], new_[field]) && !equal(new_[field], was[field]))
    .map((field) => ({ field, theirs: said(field, now[field]), mine: said(field, new_[field]) }));
}
const both = computed(() => conflict.value?.clashes.map((clash) => ({ clash, rows: rows(clash) })) ?? []);
</script>

<template>
  <ElDialog
    :model-value="!!conflict"
    title="Somebody else has changed the same"
    width="40rem"
    :close-on-click-modal="false"
    :close-on-press-escape="false"
    :show-close="false"
  >
    <template v-if="conflict">
      <p>
        Your edit “{{ conflict.label }}” is not lost. Since you made it the same was changed in another tab,
        or by somebody else.
      </p>
      <section v-for="{ clash, rows: differ } in both" :key="clash.what + clash.id">
        <h3>{{ WORDS[clash.what] }} {{ clash.id }}</h3>
        <table class="ruled">
          <thead>
            <tr>
              <th></th>
              <th>As it stands now</th>
              <th>Yours</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in differ" :key="row.field">
              <td>{{ row.field.replaceAll("_", " ") }}</td>
              <td>{{ row.theirs }}</td>
              <td>
                <b>{{ row.mine }}</b>
              </td>
            </tr>
          </tbody>
        </table>
      </section>
    </template>
    <template #footer>
      <ElButton size="large" @click="conflict?.choose(false)">Leave it as it stands now</ElButton>
      <ElButton size="large" type="primary" @click="conflict?.choose(true)">Put mine in its place</ElButton>
    </template>
  </ElDialog>
</template>

<style scoped>
h3 {
  margin: 1rem 0 0.3rem;
}
table {
  width: 100%;
}
</style>

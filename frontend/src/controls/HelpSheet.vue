<script setup lang="ts">
/** `?` shows the keys, anywhere. */
import { ElSwitch } from "element-plus";
import { onBeforeUnmount, onMounted, ref } from "vue";
import { inField, setSingleKeys, singleKeys } from "./keys";
import AppDialog from "./AppDialog.vue";

const open = ref(false);
const KEYS: [string, string][] = [
  ["?", "these keys"],
  ["1 … 7", "go to a stage of the tape"],
  ["0", "back to the shelf"],
  ["Ctrl Z", "undo the last edit of the project"],
  ["Ctrl Shift Z", "do it again"],
  ["N", "a new part, board or project, where you are"],
  ["Enter, ↑ ↓", "List: keep the cell and go to the row below or above"],
  ["Ctrl V", "List: paste rows from a spreadsheet; in a cell, a block over the cells"],
  ["Ctrl D", "List: fill down, to the chosen rows or the next one"],
  ["=", "List: a size as a formula over the measures"],
  ["M, C", "List: the measures, what to ask about"],
  ["S, P, M", "Draw, on a sheet: set a scale, draw a part, move the sheet; arrows nudge"],
  ["L", "Lay out: search; once more to stop"],
  ["Tab, Enter", "Lay out: go from piece to piece, take one in hand"],
  ["M, P, Del", "Lay out: move it by the arrows, pin it, take it up"],
  ["S, T, X, J, B", "Lay out: change places, turn, cut behind, join, nothing here"],
  ["U, R, K", "Lay out: back, forth, plans kept"],
  ["Ctrl Enter", "Boards: take a reading into the field with the cursor"],
  ["Space", "Machine: a pass taken, a step done; ← → go back and forth"],
  ["← →", "Mill, see the passes: a pass back, a pass on"],
  ["Esc", "leave a field as it was, close a sheet"],
];
function key(event: KeyboardEvent): void {
  if (event.key === "?" && (open.value || !inField(event))) open.value = !open.value;
}
onMounted(() => window.addEventListener("keydown", key));
onBeforeUnmount(() => window.removeEventListener("keydown", key));
</script>

<template>
  <AppDialog v-model="open" title="Keys" width="34rem">
    <table class="ruled">
      <tbody>
        <tr v-for="[keys, what] in KEYS" :key="keys">
          <td>
            <b>{{ keys }}</b>
          </td>
          <td>{{ what }}</td>
        </tr>
      </tbody>
    </table>
    <p class="switch">
      <ElSwitch
        :model-value="singleKeys"
        aria-label="Single letters and digits are keys"
        @change="setSingleKeys(!!$event)"
      />
      Single letters and digits are keys. Off, only keys with Ctrl, arrows, Enter and Esc do something.
    </p>
  </AppDialog>
</template>

<style scoped>
.switch {
  display: flex;
  align-items: center;
  gap: 0.8rem;
}
</style>

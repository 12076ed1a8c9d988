<script setup lang="ts">
/** The cut list: a grid to type in, paste into, and see the consequences of at once. */
import { ElMessage } from "element-plus";
import { computed, nextTick, onBeforeUnmount, onMounted, ref } from "vue";
import type { Part } from "../../api/client";
import { useProject } from "../../api/project";
import { inField } from "../../controls/keys";
import Len from "../../controls/Len.vue";
import MeasureField from "../../controls/MeasureField.vue";
import ShopSheet from "../../controls/ShopSheet.vue";
import { isMetric, TICKS_PER_INCH, TICKS_PER_MM } from "../../measure";
import { markFor } from "./marks";
import PastedList from "./PastedList.vue";

const { pk, project, edit } = useProject();
const pasted = ref("");
const shop = ref(false);
const system = computed(() => project.value?.system ?? "in");
const taken = computed(() => new Set(project.value?.parts.map((p) => p.id)));

const BOARD_FOOT = 144 * 8128 ** 3;
const totals = computed(() => {
  const parts = project.value?.parts ?? [];
  const feet = parts.reduce((sum, p) => sum + (p.quantity * p.length * p.width * p.thickness) / BOARD_FOOT, 0);
  return {
    pieces: parts.reduce((sum, p) => sum + p.quantity, 0),
    feet,
    woods: [...new Set(parts.map((p) => p.species))],
    longest: Math.max(0, ...parts.map((p) => p.length)),
  };
});

function rough(p: Part): { length: number; width: number } {
  const a = project.value!.shop.allowance;
  return { length: p.length + a.length, width: p.width + (p.panel ? a.panel_width : a.width) };
}

function change(part: Part, what: string, values: Partial<Part>): void {
  const id = values.id ?? part.id;
  if (values.id !== undefined && (taken.value.has(id) || !id.trim())) {
    ElMessage({ type: "error", message: id.trim() ? `The mark '${id}' is taken; every mark once` : "A part needs a mark" });
    return;
  }
  void edit({ label: `${what} of ${part.id}`, put_parts: [{ ...part, ...values, was: part.id }] });
}
function count(part: Part, event: Event): void {
  const input = event.target as HTMLInputElement;
  const n = Number(input.value.replace(/\s*[x×]\s*/i, ""));
  if (Number.isInteger(n) && n > 0 && n < 100000) change(part, "count", { quantity: n });
  else {
    ElMessage({ type: "error", message: `'${input.value}' is no count; a whole number of 1 or more` });
    input.value = String(part.quantity);
  }
}
function panel(part: Part, on: boolean): void {
  change(part, "panel", { panel: on ? usualStaves() : null, run: on ? "" : part.run });
}
function usualStaves(): Part["panel"] {
  return isMetric(system.value) ? { stave_min: 60 * TICKS_PER_MM, stave_max: 150 * TICKS_PER_MM } : { stave_min: 2.5 * TICKS_PER_INCH, stave_max: 6 * TICKS_PER_INCH };
}
function remove(part: Part): void {
  void edit({ label: `removal of ${part.id}`, remove_parts: [part.id] });
}

// ---- the row one types into -------------------------------------------------------------------
const draft = ref({ name: "", quantity: "1", length: null as number | null, width: null as number | null, thickness: null as number | null, species: "", faces: "clear-one" as Part["faces"] });
const draftName = ref<HTMLInputElement>();
const draftSpecies = computed(() => draft.value.species || project.value?.parts.at(-1)?.species || "");
async function addDraft(): Promise<void> {
  const d = draft.value;
  const missing = [!d.name.trim() && "a name", !d.length && "a length", !d.width && "a width", !d.thickness && "a thickness", !draftSpecies.value && "a wood"].filter(Boolean);
  if (missing.length) {
    ElMessage({ type: "error", message: `The new part still needs ${missing.join(", ")}` });
    return;
  }
  const quantity = Math.max(1, Math.round(Number(d.quantity) || 1));
  const id = markFor(d.name, taken.value);
  void edit({
    label: `new part ${id}`,
    put_parts: [{ id, name: d.name.trim(), quantity, species: draftSpecies.value, length: d.length!, width: d.width!, thickness: d.thickness!, faces: d.faces, panel: null, run: "", note: "" }],
  });
  draft.value = { ...d, name: "", quantity: "1", length: null, width: null };
  await nextTick();
  draftName.value?.focus();
}

// ---- hands on the keyboard --------------------------------------------------------------------
function move(event: KeyboardEvent): void {
  if (!["Enter", "ArrowDown", "ArrowUp"].includes(event.key)) return;
  const field = event.target as HTMLElement;
  if (field.tagName === "SELECT" && event.key !== "Enter") return;
  const row = field.closest("tr");
  if (!row) return;
  const at = [...row.querySelectorAll("input,select")].indexOf(field);
  const next = (event.key === "ArrowUp" ? row.previousElementSibling : row.nextElementSibling) as HTMLElement | null;
  const target = next?.querySelectorAll<HTMLElement>("input,select")[at];
  if (!target) return;
  event.preventDefault();
  target.focus();
}
function key(event: KeyboardEvent): void {
  if (event.key.toLowerCase() === "n" && !inField(event) && !event.ctrlKey && !event.metaKey) {
    event.preventDefault();
    draftName.value?.focus();
  }
}
function paste(event: ClipboardEvent): void {
  const text = event.clipboardData?.getData("text/plain") ?? "";
  const rows = text.trim().split("\n").length > 1 || text.includes("\t");
  if (!rows) return;
  event.preventDefault();
  pasted.value = text;
}
onMounted(() => {
  window.addEventListener("keydown", key);
  window.addEventListener("paste", paste);
});
onBeforeUnmount(() => {
  window.removeEventListener("keydown", key);
  window.removeEventListener("paste", paste);
});
</script>

<template>
  <section v-if="project" class="stage">
    <div class="stage-head">
      <h1>List</h1>
      <div class="figures grow">
        <div><span class="figure">{{ totals.pieces }}</span><span class="label">parts</span></div>
        <div><span class="figure">{{ totals.feet.toFixed(2) }}</span><span class="label">board feet, finished</span></div>
        <div v-if="totals.longest"><span class="figure"><Len :ticks="totals.longest" :system="system" /></span><span class="label">longest</span></div>
      </div>
      <button class="act" @click="shop = true">Shop allowances</button>
      <a class="act" :href="`/api/projects/${pk}/parts.csv`">CSV</a>
      <a class="act" :href="`/api/projects/${pk}/job.json`">Job file</a>
      <RouterLink v-if="project.parts.length" class="act lead" :to="{ name: 'boards', params: { project: pk } }">Next: boards</RouterLink>
    </div>
    <p v-if="!project.parts.length" class="first">Type the first part into the row below, or paste rows from a spreadsheet anywhere on this page. <RouterLink :to="{ name: 'draw', params: { project: pk } }">Bring in a file</RouterLink> works too.</p>
    <div class="scroll">
      <table class="grid" @keydown="move">
        <thead>
          <tr>
            <th>Mark</th><th class="w-name">Part</th><th class="num">Count</th><th class="num">Length</th><th class="num">Width</th><th class="num">Thickness</th>
            <th>Wood</th><th>Faces</th><th title="Parts of one run come end to end out of one blank">Run</th><th title="Glued up from staves">Panel</th><th class="num">Rough, with allowances</th><th class="w-note">Note</th><th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="p in project.parts" :key="p.id" :data-part="p.id">
            <td><input class="cell mark" :value="p.id" aria-label="Mark" @change="change(p, 'mark', { id: ($event.target as HTMLInputElement).value.trim() }); ($event.target as HTMLInputElement).value = p.id" /></td>
            <td><input class="cell" :value="p.name" aria-label="Part" @change="change(p, 'name', { name: ($event.target as HTMLInputElement).value })" /></td>
            <td><input class="cell num count" inputmode="numeric" :value="p.quantity" aria-label="Count" @change="count(p, $event)" /></td>
            <td><MeasureField compact hide-label label="Length" :system="system" :model-value="p.length" @update:model-value="change(p, 'length', { length: $event })" /></td>
            <td><MeasureField compact hide-label label="Width" :system="system" :model-value="p.width" @update:model-value="change(p, 'width', { width: $event })" /></td>
            <td><MeasureField compact hide-label label="Thickness" :system="system" :model-value="p.thickness" @update:model-value="change(p, 'thickness', { thickness: $event })" /></td>
            <td><input class="cell wood" list="woods" :value="p.species" aria-label="Wood" @change="change(p, 'wood', { species: ($event.target as HTMLInputElement).value.trim() || p.species })" /></td>
            <td>
              <select class="cell" :value="p.faces" aria-label="Faces" @change="change(p, 'faces', { faces: ($event.target as HTMLSelectElement).value as Part['faces'] })">
                <option value="clear-two">two clear</option><option value="clear-one">one clear</option><option value="sound">sound</option>
              </select>
            </td>
            <td><input class="cell run" :value="p.run" aria-label="Run" :disabled="!!p.panel" @change="change(p, 'run', { run: ($event.target as HTMLInputElement).value.trim() })" /></td>
            <td class="panel">
              <label><input type="checkbox" :checked="!!p.panel" aria-label="Panel" @change="panel(p, ($event.target as HTMLInputElement).checked)" /></label>
              <template v-if="p.panel">
                <MeasureField compact hide-label label="Narrowest stave" :system="system" :model-value="p.panel.stave_min" @update:model-value="change(p, 'staves', { panel: { ...p.panel!, stave_min: $event } })" />
                <span>to</span>
                <MeasureField compact hide-label label="Widest stave" :system="system" :model-value="p.panel.stave_max" @update:model-value="change(p, 'staves', { panel: { ...p.panel!, stave_max: $event } })" />
              </template>
            </td>
            <td class="num rough"><Len :ticks="rough(p).length" :system="system" bare /> × <Len :ticks="rough(p).width" :system="system" bare /></td>
            <td><input class="cell" :value="p.note" aria-label="Note" @change="change(p, 'note', { note: ($event.target as HTMLInputElement).value })" /></td>
            <td><button class="act quiet x" :aria-label="`Remove ${p.name}`" @click="remove(p)">×</button></td>
          </tr>
          <tr class="draft" @keydown.enter.prevent="addDraft">
            <td class="soft plus">new</td>
            <td><input ref="draftName" v-model="draft.name" class="cell" aria-label="New part" placeholder="Part" /></td>
            <td><input v-model="draft.quantity" class="cell num count" inputmode="numeric" aria-label="New count" /></td>
            <td><MeasureField v-model="draft.length" compact hide-label label="New length" :system="system" /></td>
            <td><MeasureField v-model="draft.width" compact hide-label label="New width" :system="system" /></td>
            <td><MeasureField v-model="draft.thickness" compact hide-label label="New thickness" :system="system" /></td>
            <td><input v-model="draft.species" class="cell wood" list="woods" aria-label="New wood" :placeholder="draftSpecies || 'Wood'" /></td>
            <td>
              <select v-model="draft.faces" class="cell" aria-label="New faces"><option value="clear-two">two clear</option><option value="clear-one">one clear</option><option value="sound">sound</option></select>
            </td>
            <td colspan="5"><button class="act" @click="addDraft">Add the part</button></td>
          </tr>
        </tbody>
      </table>
    </div>
    <datalist id="woods"><option v-for="w in ['white oak', 'red oak', 'ash', 'walnut', 'cherry', 'hard maple', 'beech', 'yellow poplar', 'yellow birch', ...totals.woods]" :key="w" :value="w" /></datalist>
    <PastedList v-if="pasted" :text="pasted" @close="pasted = ''" />
    <ShopSheet v-if="shop" @close="shop = false" />
  </section>
</template>

<style scoped>
.first {
  font-size: 1.15rem;
  margin-bottom: 1rem;
}
.scroll {
  overflow-x: auto;
  background: var(--paper);
  border: 2px solid var(--ink);
  min-height: 12rem;
}
.grid {
  width: 100%;
  border-collapse: collapse;
}
.grid th {
  position: sticky;
  top: 0;
  text-align: left;
  font-size: 0.8rem;
  font-weight: 600;
  color: var(--ink-soft);
  padding: 0.5rem 0.4rem;
  border-bottom: 2px solid var(--ink);
  background: var(--paper);
  white-space: nowrap;
}
.grid th.num {
  text-align: right;
}
.grid td {
  border-bottom: 1px solid var(--plaster-deep);
  padding: 1px 3px;
}
.grid tr:focus-within td {
  background: var(--chalk-wash);
}
.cell {
  display: block;
  width: 100%;
  min-height: 36px;
  border: 0;
  background: none;
  padding: 0.2rem 0.4rem;
}
.cell:focus {
  background: var(--paper);
}
select.cell {
  min-width: 6.4rem;
}
.grid td:not(:focus-within) :deep(.line-input) {
  border-bottom-color: transparent;
}
.cell.num {
  text-align: right;
}
.mark {
  width: 3.6rem;
  font-weight: 760;
}
.count {
  width: 3.2rem;
}
.run {
  width: 4.5rem;
}
.wood {
  width: 7.5rem;
}
.w-name {
  min-width: 10rem;
}
.w-note {
  min-width: 11rem;
}
.grid td :deep(.measure) {
  width: 5.6rem;
}
.panel {
  white-space: nowrap;
}
.panel :deep(.measure) {
  display: inline-flex;
  width: 3.6rem !important;
}
.panel label {
  vertical-align: middle;
  display: inline-grid;
  place-items: center;
  width: 32px;
  height: 36px;
}
.panel input {
  width: 18px;
  height: 18px;
  accent-color: var(--chalk);
}
.rough {
  text-align: right;
  color: var(--ink-soft);
  white-space: nowrap;
  padding-right: 0.8rem !important;
}
.x {
  min-height: 36px;
  font-size: 1.2rem;
}
.draft td {
  background: var(--plaster);
  padding-block: 6px;
}
.plus {
  padding-left: 0.6rem !important;
}
</style>

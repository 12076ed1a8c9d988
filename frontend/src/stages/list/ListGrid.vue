<script setup lang="ts">
/** The grid of parts: typed, pasted into, filled down, many rows at once, all from the keyboard. */
import { ElButton, ElMessage } from "element-plus";
import { computed, nextTick, ref, watch } from "vue";
import { api, type Part } from "../../api/client";
import { plainPart } from "../../api/parts";
import { useProject } from "../../api/project";
import TermWord from "../../help/TermWord.vue";
import Len from "../../controls/Len.vue";
import MeasureField from "../../controls/MeasureField.vue";
import { isMetric, show, TICKS_PER_INCH, TICKS_PER_MM } from "../../measure";
import { COLUMNS, groupOf, ordered, pastedBlock, without, type Column, type Order } from "./grid";
import { markFor } from "./marks";
import PartSheet from "./PartSheet.vue";

const props = defineProps<{ order: Order; filter: string; asked: string }>();
const { pk, project, edit } = useProject();
const system = computed(() => project.value!.system);
const taken = computed(() => new Set(project.value!.parts.map((p) => p.id)));
const rows = computed(() => ordered(project.value!.parts, props.order, props.filter));
const sheet = ref("");

function rough(p: Part): { length: number; width: number } {
  const a = project.value!.shop.allowance;
  if (p.stock !== "board")
    return {
      length: p.length - (p.edging?.ends ?? 0) * (p.edging?.thickness ?? 0),
      width: p.width - (p.edging?.long_edges ?? 0) * (p.edging?.thickness ?? 0),
    };
  return { length: p.length + a.length, width: p.width + (p.panel ? a.panel_width : a.width) };
}

/** What made the rough size out of the finished one. */
function allowances(p: Part): string {
  if (p.stock !== "board") return p.edging ? "without its edging" : "cut to size";
  const a = project.value!.shop.allowance;
  const over = (ticks: number) => show(ticks, system.value, true);
  const between =
    a.between === a.length
      ? ""
      : `, ${a.between ? `${over(a.between)}` : "the kerf alone"} between parts of one blank`;
  const width = over(p.panel ? a.panel_width : a.width);
  return `${over(a.length)} over in length${between}, ${width} in width, ${over(a.face * p.layers)} in thickness`;
}

// ---- choosing rows: what is changed in one chosen row is changed in all ---------------------------
const chosen = ref(new Set<string>());
const anchor = ref("");
watch(
  () => project.value!.parts,
  (parts) => {
    const left = new Set(parts.map((p) => p.id));
    if ([...chosen.value].some((id) => !left.has(id)))
      chosen.value = new Set([...chosen.value].filter((id) => left.has(id)));
  },
);
function choose(event: MouseEvent | KeyboardEvent, id: string): void {
  const now = new Set(chosen.value);
  const ids = rows.value.map((p) => p.id);
  if (event.shiftKey && anchor.value) {
    const [from, to] = [ids.indexOf(anchor.value), ids.indexOf(id)].sort((a, b) => a - b) as [number, number];
    for (const between of ids.slice(from, to + 1)) now.add(between);
  } else if (!now.delete(id)) now.add(id);
  anchor.value = id;
  chosen.value = now;
}
const ALONE = new Set(["id", "name", "outline", "source"]);

function change(part: Part, what: string, values: Partial<Part>): void {
  const id = values.id ?? part.id;
  if (values.id !== undefined && (taken.value.has(id) || !id.trim())) {
    ElMessage({
      type: "error",
      message: id.trim() ? `The mark '${id}' is taken; every mark once` : "A part needs a mark",
    });
    return;
  }
  const names = Object.keys(values);
  const many = chosen.value.has(part.id) && chosen.value.size > 1 && !names.some((n) => ALONE.has(n));
  const parts = many ? project.value!.parts.filter((p) => chosen.value.has(p.id)) : [part];
  const puts = parts.map((p) => names.reduce((q, n) => without(q, n), { ...p, ...values, was: p.id }));
  void edit({ label: many ? `${what} of ${parts.length} parts` : `${what} of ${part.id}`, put_parts: puts });
}
function formula(part: Part, field: string, text: string): void {
  const formulas = { ...part.formulas, [field]: text };
  if (!text) delete formulas[field];
  void edit({
    label: `formula for the ${field} of ${part.id}`,
    put_parts: [{ ...part, formulas, was: part.id }],
  });
}
async function workOut(text: string): Promise<{ ticks: number | null; why: string }> {
  return (
    await api.POST("/api/projects/{project}/formula", {
      params: { path: { project: pk.value } },
      body: { text, kind: "length" },
    })
  ).data!;
}
function count(part: Part, event: Event): void {
  const input = event.target as HTMLInputElement;
  const text = input.value.trim();
  if (text.startsWith("=")) {
    formula(part, "quantity", text.slice(1).trim());
    return;
  }
  const n = Number(text.replace(/\s*[x×]\s*/i, ""));
  if (Number.isInteger(n) && n > 0 && n < 100000) change(part, "count", { quantity: n });
  else {
    ElMessage({ type: "error", message: `'${input.value}' is no count; a whole number of 1 or more` });
    input.value = String(part.quantity);
  }
}
function panel(part: Part, on: boolean): void {
  const usual = isMetric(system.value)
    ? { stave_min: 60 * TICKS_PER_MM, stave_max: 150 * TICKS_PER_MM }
    : { stave_min: 2.5 * TICKS_PER_INCH, stave_max: 6 * TICKS_PER_INCH };
  change(part, "panel", { panel: on ? usual : null, run: on ? "" : part.run });
}
function remove(part: Part): void {
  const many = chosen.value.has(part.id) && chosen.value.size > 1;
  const ids = many ? [...chosen.value] : [part.id];
  void edit({ label: many ? `removal of ${ids.length} parts` : `removal of ${part.id}`, remove_parts: ids });
  chosen.value = new Set();
}

// ---- the row one types into ----------------------------------------------------------------------
const draft = ref({
  name: "",
  quantity: "1",
  length: null as number | null,
  width: null as number | null,
  thickness: null as number | null,
  species: "",
  faces: "clear-one" as Part["faces"],
});
const draftName = ref<HTMLInputElement>();
const draftSpecies = computed(() => draft.value.species || project.value!.parts.at(-1)?.species || "");
async function addDraft(): Promise<void> {
  const d = draft.value;
  const missing = [
    !d.name.trim() && "a name",
    !d.length && "a length",
    !d.width && "a width",
    !d.thickness && "a thickness",
    !draftSpecies.value && "a wood",
  ].filter(Boolean);
  if (missing.length) {
    ElMessage({ type: "error", message: `The new part still needs ${missing.join(", ")}` });
    return;
  }
  const id = markFor(d.name, taken.value);
  const quantity = Math.max(1, Math.round(Number(d.quantity) || 1));
  void edit({
    label: `new part ${id}`,
    put_parts: [
      plainPart({
        id,
        name: d.name.trim(),
        quantity,
        species: draftSpecies.value,
        length: d.length!,
        width: d.width!,
        thickness: d.thickness!,
        faces: d.faces,
      }),
    ],
  });
  draft.value = { ...d, name: "", quantity: "1", length: null, width: null };
  await nextTick();
  draftName.value?.focus();
}

// ---- hands on the keyboard -----------------------------------------------------------------------
function place(target: EventTarget | null): { part: Part; at: number; column: Column } | null {
  const field = target as HTMLElement | null;
  const id = field?.closest<HTMLElement>("tr[data-part]")?.dataset.part;
  const column = field?.closest<HTMLElement>("td[data-column]")?.dataset.column as Column | undefined;
  const at = rows.value.findIndex((p) => p.id === id);
  return column && at >= 0 ? { part: rows.value[at]!, at, column } : null;
}
async function key(event: KeyboardEvent): Promise<void> {
  const field = event.target as HTMLElement;
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "d") {
    event.preventDefault();
    await fillDown(field);
    return;
  }
  if (!["Enter", "ArrowDown", "ArrowUp"].includes(event.key)) return;
  if (field.tagName === "SELECT" && event.key !== "Enter") return;
  if (field.tagName === "BUTTON") return;
  const row = field.closest("tr");
  if (!row) return;
  const at = [...row.querySelectorAll("input,select")].indexOf(field);
  let next = (
    event.key === "ArrowUp" ? row.previousElementSibling : row.nextElementSibling
  ) as HTMLElement | null;
  while (next?.classList.contains("group"))
    next = (
      event.key === "ArrowUp" ? next.previousElementSibling : next.nextElementSibling
    ) as HTMLElement | null;
  const target = next?.querySelectorAll<HTMLElement>("input,select")[at];
  if (!target) return;
  event.preventDefault();
  target.focus();
}
/** The value of the cell one is in goes to the chosen rows below it, or to the next row. */
async function fillDown(field: HTMLElement): Promise<void> {
  const from = place(field);
  if (!from || from.column === "id") return;
  field.blur();
  await nextTick();
  const source = project.value!.parts.find((p) => p.id === from.part.id)!;
  const below = rows.value.slice(from.at + 1);
  const targets = chosen.value.size > 1 ? below.filter((p) => chosen.value.has(p.id)) : below.slice(0, 1);
  if (!targets.length) return;
  const name = from.column;
  const text = source.formulas[name];
  const puts = targets.map((p) => ({
    ...without(p, name),
    [name]: source[name],
    ...(text ? { formulas: { ...p.formulas, [name]: text } } : {}),
    was: p.id,
  }));
  void edit({ label: `fill down of ${name} to ${puts.length}`, put_parts: puts });
  await nextTick();
  document
    .querySelector<HTMLElement>(
      `tr[data-part="${CSS.escape(targets.at(-1)!.id)}"] td[data-column="${name}"] :is(input,select)`,
    )
    ?.focus();
}
/** A block from a spreadsheet over the cells from the one that has the focus; false where none has. */
function pasteBlock(text: string): boolean {
  const from = place(document.activeElement);
  if (!from) return false;
  const { puts, over, wrong } = pastedBlock(rows.value, from.at, from.column, text, system.value);
  if (wrong.length) {
    ElMessage({
      type: "error",
      message: `Nothing was pasted. ${wrong.slice(0, 3).join("; ")}`,
      duration: 8000,
      showClose: true,
    });
    return true;
  }
  (document.activeElement as HTMLElement).blur();
  void edit({ label: `pasted cells in ${puts.length} parts`, put_parts: puts });
  if (over) ElMessage({ message: `${over} rows of the block lie below the list and were left` });
  return true;
}
function focusNew(): void {
  draftName.value?.focus();
}
defineExpose({ pasteBlock, focusNew, open: (id: string) => (sheet.value = id) });

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
  <div v-if="project" class="scroll">
    <table class="grid" @keydown="key">
      <thead>
        <tr>
          <th class="tick"><span class="sr">Chosen</span></th>
          <th>Mark</th>
          <th class="w-name">Part</th>
          <th class="num">Count</th>
          <th class="num">Length</th>
          <th class="num">Width</th>
          <th class="num">Thickness</th>
          <th>Wood</th>
          <th><TermWord term="faces">Faces</TermWord></th>
          <th><TermWord term="run">Run</TermWord></th>
          <th><TermWord term="panel">Panel</TermWord></th>
          <th class="num"><TermWord term="rough size">Rough size</TermWord></th>
          <th class="w-note">Note</th>
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
          <tr :data-part="p.id" :class="{ chosen: chosen.has(p.id) }">
            <td class="tick">
              <input
                type="checkbox"
                :checked="chosen.has(p.id)"
                :aria-label="`Choose ${p.id}`"
                @click="choose($event, p.id)"
              />
            </td>
            <td data-column="id">
              <input
                class="cell mark"
                :value="p.id"
                aria-label="Mark"
                @change="
                  change(p, 'mark', { id: ($event.target as HTMLInputElement).value.trim() });
                  ($event.target as HTMLInputElement).value = p.id;
                "
              />
            </td>
            <td data-column="name">
              <input
                class="cell"
                :value="p.name"
                aria-label="Part"
                @change="change(p, 'name', { name: ($event.target as HTMLInputElement).value })"
              />
            </td>
            <td data-column="quantity">
              <input
                class="cell num count"
                inputmode="text"
                :value="p.quantity"
                aria-label="Count"
                :title="p.formulas.quantity ? `= ${p.formulas.quantity}` : undefined"
                :class="{ formed: p.formulas.quantity }"
                @focus="
                  p.formulas.quantity
                    ? (($event.target as HTMLInputElement).value = `=${p.formulas.quantity}`)
                    : undefined
                "
                @blur="($event.target as HTMLInputElement).value = String(p.quantity)"
                @change="count(p, $event)"
              />
            </td>
            <td
              v-for="[field, label] in [
                ['length', 'Length'],
                ['width', 'Width'],
                ['thickness', 'Thickness'],
              ] as const"
              :key="field"
              :data-column="field"
            >
              <MeasureField
                compact
                hide-label
                :label="label"
                :system="system"
                :model-value="p[field]"
                :formula="p.formulas[field] ?? ''"
                :work-out="workOut"
                @formula="formula(p, field, $event)"
                @update:model-value="change(p, field, { [field]: $event })"
              />
            </td>
            <td data-column="species">
              <input
                class="cell wood"
                list="woods"
                :value="p.species"
                aria-label="Wood"
                @change="
                  change(p, 'wood', {
                    species: ($event.target as HTMLInputElement).value.trim() || p.species,
                  })
                "
              />
            </td>
            <td data-column="faces">
              <select
                class="cell"
                :value="p.faces"
                aria-label="Faces"
                @change="
                  change(p, 'faces', { faces: ($event.target as HTMLSelectElement).value as Part['faces'] })
                "
              >
                <option value="clear-two">two clear</option>
                <option value="clear-one">one clear</option>
                <option value="sound">sound</option>
              </select>
            </td>
            <td data-column="run">
              <input
                class="cell run"
                :value="p.run"
                aria-label="Run"
                :disabled="!!p.panel || p.stock !== 'board'"
                @change="change(p, 'run', { run: ($event.target as HTMLInputElement).value.trim() })"
              />
            </td>
            <td class="panel">
              <span v-if="p.stock !== 'board'" class="kind">{{ p.stock }}</span>
              <label v-else
                ><input
                  type="checkbox"
                  :checked="!!p.panel"
                  aria-label="Panel"
                  @change="panel(p, ($event.target as HTMLInputElement).checked)"
              /></label>
              <template v-if="p.panel && p.stock === 'board'">
                <MeasureField
                  compact
                  hide-label
                  label="Narrowest stave"
                  :system="system"
                  :model-value="p.panel.stave_min"
                  @update:model-value="change(p, 'staves', { panel: { ...p.panel!, stave_min: $event } })"
                />
                <span>to</span>
                <MeasureField
                  compact
                  hide-label
                  label="Widest stave"
                  :system="system"
                  :model-value="p.panel.stave_max"
                  @update:model-value="change(p, 'staves', { panel: { ...p.panel!, stave_max: $event } })"
                />
              </template>
            </td>
            <td class="num rough" :title="allowances(p)">
              <Len :ticks="rough(p).length" :system="system" bare /> ×
              <Len :ticks="rough(p).width" :system="system" bare />
            </td>
            <td data-column="note">
              <input
                class="cell"
                :value="p.note"
                aria-label="Note"
                @change="change(p, 'note', { note: ($event.target as HTMLInputElement).value })"
              />
            </td>
            <td class="ends">
              <ElButton
                class="act quiet x"
                :aria-label="`All of ${p.name}`"
                title="All of this part"
                @click="sheet = p.id"
              >
                ⋯</ElButton
              ><ElButton class="act quiet x" :aria-label="`Remove ${p.name}`" @click="remove(p)">×</ElButton>
            </td>
          </tr>
        </template>
        <tr class="draft" @keydown.enter.prevent="addDraft">
          <td />
          <td class="soft plus">new</td>
          <td>
            <input
              ref="draftName"
              v-model="draft.name"
              class="cell"
              aria-label="New part"
              placeholder="Part"
            />
          </td>
          <td>
            <input
              v-model="draft.quantity"
              class="cell num count"
              inputmode="numeric"
              aria-label="New count"
            />
          </td>
          <td>
            <MeasureField v-model="draft.length" compact hide-label label="New length" :system="system" />
          </td>
          <td>
            <MeasureField v-model="draft.width" compact hide-label label="New width" :system="system" />
          </td>
          <td>
            <MeasureField
              v-model="draft.thickness"
              compact
              hide-label
              label="New thickness"
              :system="system"
            />
          </td>
          <td>
            <input
              v-model="draft.species"
              class="cell wood"
              list="woods"
              aria-label="New wood"
              :placeholder="draftSpecies || 'Wood'"
            />
          </td>
          <td>
            <select v-model="draft.faces" class="cell" aria-label="New faces">
              <option value="clear-two">two clear</option>
              <option value="clear-one">one clear</option>
              <option value="sound">sound</option>
            </select>
          </td>
          <td colspan="5"><ElButton class="act" @click="addDraft">Add the part</ElButton></td>
        </tr>
      </tbody>
    </table>
    <PartSheet v-if="sheet" :part="sheet" @close="sheet = ''" @change="change" />
  </div>
</template>

<style scoped>
.scroll {
  overflow: auto;
  background: var(--paper);
  border: 2px solid var(--ink);
  min-height: 12rem;
}
/* A long list scrolls in itself, under its own header. */
@media (min-width: 641px) {
  .scroll {
    max-height: calc(100dvh - var(--tape-high) - 5rem);
  }
}
.grid {
  width: 100%;
  border-collapse: collapse;
}
.grid th {
  position: sticky;
  top: 0;
  z-index: 2;
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
.grid tr:focus-within td,
.grid tr.chosen td {
  background: var(--chalk-wash);
}
.grid tr.chosen td:first-child {
  box-shadow: inset 5px 0 0 var(--chalk);
}
.group td {
  padding: 0.7rem 0.6rem 0.2rem;
  border-bottom: 2px solid var(--ink);
}
.tick {
  width: 26px;
  text-align: center;
}
.tick input,
.panel input[type="checkbox"] {
  width: 18px;
  height: 18px;
  accent-color: var(--chalk);
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
.grid td:not(:focus-within) :deep(.measure:not(.formed) .line-input) {
  border-bottom-color: transparent;
}
.cell.num {
  text-align: right;
}
.cell.formed {
  border-bottom: 2px dotted var(--chalk);
}
.mark {
  width: 3.4rem;
  font-weight: 760;
}
.count {
  width: 3.2rem;
}
.run {
  width: 3.8rem;
}
.wood {
  width: 6.8rem;
}
.w-name {
  min-width: 8.6rem;
}
.w-note {
  min-width: 8rem;
}
.grid td :deep(.measure) {
  width: 4.9rem;
}
.panel,
.ends {
  white-space: nowrap;
}
.kind {
  padding: 0 0.5rem;
  font-weight: 620;
}
.panel :deep(.measure) {
  display: inline-flex;
  width: 3rem !important;
}
.panel label {
  vertical-align: middle;
  display: inline-grid;
  place-items: center;
  width: 32px;
  height: 36px;
}
.rough {
  text-align: right;
  font-size: 0.9rem;
  color: var(--ink-soft);
  white-space: nowrap;
  padding-right: 0.8rem !important;
}
.x {
  min-height: 36px;
  font-size: 1.2rem;
  padding-inline: 0.4rem;
}
.draft td {
  background: var(--plaster);
  padding-block: 6px;
}
.plus {
  padding-left: 0.6rem !important;
}
@media (pointer: coarse) {
  .cell,
  .x,
  .w-name {
    min-height: 44px;
  }
  .x {
    min-width: 44px;
  }
  .tick {
    width: 44px;
  }
  .tick input,
  .panel input[type="checkbox"] {
    width: 30px;
    height: 44px;
  }
}
@media print {
  .scroll {
    max-height: none;
  }
  .draft,
  .tick,
  .ends {
    display: none;
  }
  .scroll {
    overflow: visible;
    border: 0;
  }
}
</style>

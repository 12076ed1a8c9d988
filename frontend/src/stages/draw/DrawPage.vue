<script setup lang="ts">
/** Where parts come from: a model, a drawing, a sheet taken off by eye, a pattern, a list. */
import { I18nT } from "vue-i18n";
import { useQueryClient } from "@tanstack/vue-query";
import { ElButton, ElMessage, ElTabPane, ElTabs } from "element-plus";
import { computed, ref, watch } from "vue";
import { useRoute, useRouter } from "vue-router";
import { api, send, type Drawing, type Found, type Schemas } from "../../api/client";
import { beingRead, useDrawings, useReading } from "../../api/drawings";
import { partFrom } from "../../api/parts";
import { tableText } from "../../api/tableText";
import { useProject } from "../../api/project";
import { withErrorToast } from "../../controls/withErrorToast";
import PastedList from "../list/PastedList.vue";
import ChangesSheet from "./ChangesSheet.vue";
import DrawingView from "./DrawingView.vue";
import FoundParts from "./FoundParts.vue";
import PatternSheet from "./PatternSheet.vue";
import SheetTakeoff from "./SheetTakeoff.vue";
import { DOUBTS } from "./takeoff";
import FileButton from "../../controls/fields/FileButton.vue";
import { t } from "../../i18n/i18n";

/** Models and drawings whose parts are read off. */
const FORMATS = "STEP, STL, OBJ, GLB, glTF, 3MF, PLY, OFF, DXF, SVG";
const READ =
  ".step,.stp,.stl,.obj,.glb,.gltf,.3mf,.ply,.off,.dxf,.svg,.pdf,.png,.jpg,.jpeg,.xlsx,.ods,.csv,.tsv,.txt,.json";

const { pk, project } = useProject();
const client = useQueryClient();
const router = useRouter();
const route = useRoute();
const { data: drawings } = useDrawings(pk);
const standing = computed(() => drawings.value?.filter((d) => !d.replaced) ?? []);
const shown = ref<number | null>(null);
const touched = ref(false);
const asked = computed(() => String(route.query.part ?? ""));
watch(
  [drawings, asked],
  ([now]) => {
    const from = project.value?.parts.find((p) => p.id === asked.value)?.source?.drawing;
    if (from && now?.some((d) => d.pk === from) && shown.value !== from && !touched.value) shown.value = from;
    else if (shown.value === null || !now?.some((d) => d.pk === shown.value))
      shown.value = standing.value[0]?.pk ?? null;
  },
  { immediate: true },
);
const current = computed(() => drawings.value?.find((d) => d.pk === shown.value));
const { data: reading } = useReading(current);
const newer = computed(() =>
  standing.value.find(
    (d) =>
      d.replaces !== null &&
      d.state === "done" &&
      drawings.value?.some((o) => o.pk === d.replaces && !o.replaced),
  ),
);
const comparing = ref<Drawing | null>(null);
watch(
  newer,
  (now) => {
    if (now) comparing.value = now;
  },
  { immediate: true },
);

const text = ref("");
const list = ref("");
const pattern = ref(false);
const pasting = ref(false);

async function bring(file: File, replaces?: number): Promise<void> {
  const ending = file.name.split(".").at(-1)?.toLowerCase() ?? "";
  if (ending === "json") return jobFile(file);
  if (["csv", "tsv", "txt"].includes(ending)) {
    list.value = tableText(await file.arrayBuffer());
    return;
  }
  await withErrorToast(async () => {
    const query = replaces ? `?replaces=${replaces}` : "";
    const added = await send<Drawing>(`/api/projects/${pk.value}/drawings${query}`, file, {
      "X-File-Name": encodeURIComponent(file.name),
    });
    await client.invalidateQueries({ queryKey: ["drawings", pk.value] });
    touched.value = true;
    if (!replaces) shown.value = added.pk;
  });
}
async function jobFile(file: File): Promise<void> {
  await withErrorToast(async () => {
    const made = await send<Schemas["ProjectBody"]>("/api/projects/from-job", file);
    await router.push({ name: "list", params: { project: made.pk } });
    ElMessage({ type: "success", message: t("Opened as its own project: {name}", { name: made.name }) });
  });
}
function dropped(event: DragEvent): void {
  const file = event.dataTransfer?.files[0];
  if (file) void bring(file);
}
async function remove(id: number): Promise<void> {
  await withErrorToast(async () => {
    await api.DELETE("/api/drawings/{drawing}", { params: { path: { drawing: id } } });
    await client.invalidateQueries({ queryKey: ["drawings", pk.value] });
  });
}

// ---- the sheets of a workbook ---------------------------------------------------------------------
const page = ref("");
const pages = computed(() =>
  reading.value ? [{ name: reading.value.sheet, table: reading.value.table }, ...reading.value.others] : [],
);
watch(reading, (now) => (page.value = now?.sheet ?? ""), { immediate: true });
const table = computed(
  () => pages.value.find((s) => s.name === page.value)?.table ?? reading.value?.table ?? "",
);
const SHOWN = 60;
const lines = computed(() => table.value.split("\n"));
const rows = computed(() => lines.value.slice(0, SHOWN).map((line) => line.split("\t")));
const more = computed(() => Math.max(0, lines.value.length - SHOWN));

// ---- one part, pointed at on the drawing or on the list ------------------------------------------
const found = ref<Found | null>(null);
watch(
  [reading, asked],
  ([now]) => {
    const key = project.value?.parts.find((p) => p.id === asked.value && p.source?.drawing === shown.value)
      ?.source?.key;
    found.value = now?.parts.find((f) => f.key === key) ?? null;
  },
  { immediate: true },
);
/** Pieces of a decision that is pointed at; a part that is chosen takes its place. */
const pointed = ref<string[]>([]);
const chosen = computed(() => new Set(found.value?.refs ?? pointed.value));
const byRef = computed(
  () => new Map(reading.value?.parts.flatMap((f) => f.refs.map((r) => [r, f] as const)) ?? []),
);
const doubtful = computed(
  () =>
    new Set(reading.value?.decisions.filter((d) => DOUBTS.has(d.kind) && !d.turned).flatMap((d) => d.refs)),
);
function species(ref: string): string {
  const f = byRef.value.get(ref);
  return (f && (partFrom(project.value!, shown.value!, f.key)?.species ?? f.species)) || "white oak";
}
function names(ref: string): string {
  const f = byRef.value.get(ref);
  return f
    ? `${f.quantity} × ${f.name}`
    : (reading.value?.decisions.find((d) => d.refs.includes(ref))?.what ?? t("no part"));
}
</script>

<template>
  <section v-if="project" class="stage" @dragover.prevent @drop.prevent="dropped">
    <div class="stage-head">
      <h1 class="grow">{{ $t("Draw") }}</h1>
      <FileButton look="lead" :accept="READ" @file="bring($event)">{{ $t("Bring in a file") }}</FileButton>
      <ElButton class="act" @click="pattern = true">{{ $t("Start from a pattern") }}</ElButton>
      <ElButton class="act" :class="{ on: pasting }" @click="pasting = !pasting">{{
        $t("Paste a list")
      }}</ElButton>
    </div>
    <div v-if="pasting" class="paste">
      <p class="soft">
        {{
          $t(
            "Rows from a spreadsheet, or typed: name, count, length, width, thickness, wood, faces. A heading row may put them in any order.",
          )
        }}
      </p>
      <textarea
        v-model="text"
        class="line-input"
        :aria-label="$t('Rows of parts')"
        :placeholder="$t('Seat rail 2 44 3 13/16 white oak clear-one')"
      />
      <ElButton class="act lead" :disabled="!text.trim()" @click="list = text">{{ $t("Read it") }}</ElButton>
    </div>
    <div v-if="standing.length" class="tabs">
      <ElButton
        v-for="d in standing"
        :key="d.pk"
        class="act"
        :class="{ on: d.pk === shown }"
        @click="
          shown = d.pk;
          touched = true;
          found = null;
        "
      >
        {{ d.name }}<span v-if="beingRead(d)" class="soft"> {{ " " + $t("being read …") }}</span
        ><span v-else-if="d.state === 'failed'" class="bad"> !</span>
      </ElButton>
      <span class="grow" />
      <template v-if="current">
        <ElButton v-if="newer" class="act" @click="comparing = newer">{{ $t("What changed") }}</ElButton>
        <FileButton v-else look="quiet" :accept="READ" @file="bring($event, current.pk)">{{
          $t("Newer version")
        }}</FileButton>
        <a class="act quiet" :href="`/api/drawings/${current.pk}`">{{ $t("Keep a copy") }}</a>
        <ElButton class="act quiet" @click="remove(current.pk)">{{ $t("Take it off") }}</ElButton>
      </template>
    </div>
    <template v-if="current">
      <p v-if="beingRead(current)" class="reading" role="status">
        <span class="pull" aria-hidden="true" />{{
          $t("Reading {name}. You can go on working meanwhile.", { name: current.name })
        }}
      </p>
      <p v-else-if="current.state === 'failed'" class="note">{{ current.trouble }}</p>
      <template v-else-if="reading">
        <SheetTakeoff v-if="reading.kind === 'sheet'" :drawing="current" :reading="reading" :part="asked" />
        <div v-else-if="reading.kind === 'list'" class="listed">
          <p v-for="trouble in reading.troubles" :key="trouble" class="note">{{ trouble }}</p>
          <ElTabs v-if="reading.others.length" v-model="page" class="pages">
            <ElTabPane v-for="s in pages" :key="s.name" :name="s.name" :label="s.name" />
          </ElTabs>
          <div class="table">
            <table class="ruled">
              <tbody>
                <tr v-for="(row, r) in rows" :key="r">
                  <td v-for="(cell, c) in row" :key="c">{{ cell }}</td>
                </tr>
              </tbody>
            </table>
            <p v-if="more" class="soft">{{ $t("and {more} more rows", { more }) }}</p>
          </div>
          <ElButton class="act lead" @click="list = table">{{ $t("Read it as a parts list") }}</ElButton>
        </div>
        <div v-else class="two">
          <div class="sheet">
            <DrawingView
              :views="reading.views"
              :chosen="chosen"
              :species="species"
              :names="names"
              :parts="byRef"
              :doubtful="doubtful"
              @choose="
                found = byRef.get($event) ?? null;
                pointed = [];
              "
            />
          </div>
          <FoundParts
            :drawing="current"
            :reading="reading"
            :chosen="chosen"
            @choose="found = found === $event ? null : $event"
            @point="
              found = null;
              pointed = $event;
            "
          />
        </div>
      </template>
    </template>
    <div v-else-if="drawings" class="first">
      <p>
        <I18nT keypath="{bring} and its parts are read off: {formats}. Drop it anywhere here." scope="global"
          ><template #bring
            ><b>{{ $t("Bring in a model or drawing") }}</b></template
          ><template #formats>{{ FORMATS }}</template></I18nT
        >
      </p>
      <p>
        <I18nT
          keypath="{sheet}, as PDF, PNG or JPEG, is taken off by eye: set its scale, draw over the parts."
          scope="global"
          ><template #sheet
            ><b>{{ $t("A sheet of paper") }}</b></template
          ></I18nT
        >
      </p>
      <p>
        <b>{{ $t("Only sizes in your head?") }}</b>
        {{ $t("A pattern writes the parts of a case, a table, a drawer or a settle from three measures.") }}
      </p>
      <p>
        <I18nT keypath="{list} comes in as XLSX, ODS or CSV, as a job file, or pasted." scope="global"
          ><template #list
            ><b>{{ $t("A list") }}</b></template
          ></I18nT
        >
      </p>
      <p class="soft">
        {{ $t("Written dimensions rule: where a figure is written, nobody scales the drawing.") }}
      </p>
    </div>
    <datalist id="woods">
      <option
        v-for="w in [
          'white oak',
          'red oak',
          'ash',
          'walnut',
          'cherry',
          'hard maple',
          'beech',
          'yellow poplar',
          'yellow birch',
        ]"
        :key="w"
        :value="w"
      />
    </datalist>
    <PastedList
      v-if="list"
      :text="list"
      @close="list = ''"
      @added="
        text = '';
        router.push({ name: 'list', params: { project: pk } });
      "
    />
    <PatternSheet v-if="pattern" @close="pattern = false" />
    <ChangesSheet
      v-if="comparing"
      :drawing="comparing"
      :before="drawings?.find((d) => d.pk === comparing?.replaces)?.name ?? 'before'"
      @close="comparing = null"
    />
  </section>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 26rem;
  gap: 1.4rem;
}
.sheet,
.listed,
.first {
  background: var(--paper);
  border: 2px solid var(--ink);
}
.listed,
.first {
  padding: 1.2rem 1.4rem;
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
  align-items: flex-start;
}
.first {
  font-size: 1.1rem;
  padding-block: 2.4rem;
}
.tabs {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin-bottom: 0.8rem;
}
.tabs .grow {
  flex: 1;
}
.bad {
  color: var(--crayon-ink);
  font-weight: 800;
}
.paste {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
  align-items: flex-start;
  margin-bottom: 1rem;
}
.table {
  max-height: 24rem;
  overflow: auto;
  width: 100%;
}
.pages {
  width: 100%;
}
.reading {
  display: flex;
  gap: 0.8rem;
  align-items: center;
  padding: 1.2rem 0;
  font-size: 1.1rem;
}
.pull {
  width: 6rem;
  height: 12px;
  background: repeating-linear-gradient(90deg, var(--tape) 0 10px, var(--tape-deep) 10px 12px);
  animation: pull 1.2s ease-in-out infinite alternate;
  transform-origin: left;
}
@keyframes pull {
  from {
    transform: scaleX(0.2);
  }
}
@media (max-width: 1000px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

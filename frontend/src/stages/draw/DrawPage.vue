<script setup lang="ts">
import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { ElMessage } from "element-plus";
import { computed, ref, watch } from "vue";
import { useRouter } from "vue-router";
import { api, send, type Schemas } from "../../api/client";
import { useProject } from "../../api/project";
import { told } from "../../controls/told";
import PastedList from "../list/PastedList.vue";

const { pk, project } = useProject();
const client = useQueryClient();
const router = useRouter();
const { data: drawings } = useQuery({
  queryKey: computed(() => ["drawings", pk.value]),
  queryFn: async () =>
    (await api.GET("/api/projects/{project}/drawings", { params: { path: { project: pk.value } } })).data!.drawings,
});
const shown = ref<number | null>(null);
watch(drawings, (now) => { if (shown.value === null || !now?.some((d) => d.pk === shown.value)) shown.value = now?.[0]?.pk ?? null; }, { immediate: true });
const current = computed(() => drawings.value?.find((d) => d.pk === shown.value));
const text = ref("");
const reading = ref("");
const zoom = ref(1);

async function attach(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = "";
  if (!file) return;
  await told(async () => {
    const added = await send<Schemas["DrawingBody"]>(`/api/projects/${pk.value}/drawings`, file, { "X-File-Name": encodeURIComponent(file.name) });
    await client.invalidateQueries({ queryKey: ["drawings", pk.value] });
    shown.value = added.pk;
  });
}
async function remove(id: number): Promise<void> {
  await told(async () => {
    await api.DELETE("/api/drawings/{drawing}", { params: { path: { drawing: id } } });
    await client.invalidateQueries({ queryKey: ["drawings", pk.value] });
  });
}
async function listFile(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = "";
  if (file) reading.value = await file.text();
}
async function jobFile(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = "";
  if (!file) return;
  await told(async () => {
    const made = await send<Schemas["ProjectBody"]>("/api/projects/from-job", file);
    await router.push({ name: "list", params: { project: made.pk } });
    ElMessage({ type: "success", message: `Opened as its own project: ${made.name}` });
  });
}
</script>

<template>
  <section v-if="project" class="stage">
    <div class="stage-head">
      <h1 class="grow">Draw</h1>
      <label class="act">Attach a drawing<input class="sr" type="file" accept=".pdf,.png,.jpg,.jpeg,.svg" @change="attach" /></label>
    </div>
    <div class="two">
      <div class="sheet">
        <div v-if="drawings?.length" class="tabs">
          <button v-for="d in drawings" :key="d.pk" class="act" :class="{ on: d.pk === shown }" @click="shown = d.pk">{{ d.name }}</button>
          <span class="grow" />
          <template v-if="current && !current.media_type.includes('pdf')">
            <button class="act" aria-label="Smaller" @click="zoom = Math.max(0.5, zoom / 1.25)">−</button>
            <button class="act" aria-label="Larger" @click="zoom = Math.min(6, zoom * 1.25)">+</button>
          </template>
          <button v-if="current" class="act quiet" @click="remove(current.pk)">Take it off</button>
        </div>
        <div v-if="current" class="view">
          <iframe v-if="current.media_type.includes('pdf')" :src="`/api/drawings/${current.pk}`" :title="current.name" />
          <img v-else :src="`/api/drawings/${current.pk}`" :alt="current.name" :style="{ width: `${zoom * 100}%` }" />
        </div>
        <p v-else class="empty">No drawing yet. Attach a PDF, PNG, JPEG or SVG to have it beside you while you write the list.</p>
      </div>
      <div class="bring">
        <h2>Bring in a parts list</h2>
        <p class="soft">Paste rows from a spreadsheet or type them: name, count, length, width, thickness, wood, faces. A heading row may put them in any order.</p>
        <textarea v-model="text" class="line-input" aria-label="Rows of parts" placeholder="Seat rail	2	44	3	13/16	white oak	clear-one" />
        <div class="buttons">
          <button class="act lead" :disabled="!text.trim()" @click="reading = text">Read it</button>
          <label class="act">CSV file<input class="sr" type="file" accept=".csv,.tsv,.txt,text/csv" @change="listFile" /></label>
          <label class="act">Job file<input class="sr" type="file" accept=".json" @change="jobFile" /></label>
        </div>
        <p class="soft">Written dimensions rule: take figures from the drawing, never its scale.</p>
      </div>
    </div>
    <PastedList v-if="reading" :text="reading" @close="reading = ''" @added="text = ''; router.push({ name: 'list', params: { project: pk } })" />
  </section>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 22rem;
  gap: 1.6rem;
}
.sheet {
  background: var(--paper);
  border: 2px solid var(--ink);
  min-height: 20rem;
}
.tabs {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  padding: 0.5rem;
  border-bottom: 2px solid var(--ink);
}
.tabs .grow {
  flex: 1;
}
.view {
  overflow: auto;
  max-height: 72vh;
}
.view img {
  display: block;
  width: 100%;
}
.view iframe {
  width: 100%;
  height: 70vh;
  border: 0;
}
.empty {
  padding: 3rem 1.5rem;
}
.bring {
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

<script setup lang="ts">
import { I18nT } from "vue-i18n";
import { tag } from "../../i18n/i18n";
import { useEventListener } from "@vueuse/core";
import { ElButton } from "element-plus";
import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { computed, nextTick, ref } from "vue";
import { useRouter } from "vue-router";
import { api, send, type Project } from "../../api/client";
import { inField } from "../../controls/keys";
import { withErrorToast } from "../../controls/withErrorToast";
import { SYSTEMS, type System } from "../../measure";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import FileButton from "../../controls/fields/FileButton.vue";

const router = useRouter();
const client = useQueryClient();
const { data, error } = useQuery({
  queryKey: ["shelf"],
  queryFn: async () => (await api.GET("/api/projects")).data!.projects,
});

const emit = defineEmits<{ round: [number] }>();
const demo = computed(() => data.value?.find((p) => p.demo && p.laid_out));
const name = ref("");
const system = ref<System>("in");
const nameField = ref<HTMLInputElement>();
const confirming = ref(0);

async function add(): Promise<void> {
  if (!name.value.trim()) {
    nameField.value?.focus();
    return;
  }
  await withErrorToast(async () => {
    const made = await api.POST("/api/projects", { body: { name: name.value.trim(), system: system.value } });
    await router.push({ name: "list", params: { project: made.data!.pk } });
  });
}

async function bring(file: File): Promise<void> {
  await withErrorToast(async () => {
    const made = await send<Project>("/api/projects/from-job", file);
    await router.push({ name: "list", params: { project: made.pk } });
  });
}

async function remove(pk: number): Promise<void> {
  await withErrorToast(async () => {
    const kept = (await api.GET("/api/projects/{project}", { params: { path: { project: pk } } })).data!;
    await api.DELETE("/api/projects/{project}", {
      params: { path: { project: pk } },
      body: { version: kept.version },
    });
    confirming.value = 0;
    await client.invalidateQueries({ queryKey: ["shelf"] });
  });
}

function when(iso: string): string {
  return new Date(iso).toLocaleString(tag(), {
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
  });
}
function progress(p: { parts: number; boards: number; laid_out: boolean }): number {
  return p.laid_out ? 7 : p.boards ? 5 : p.parts ? 3 : 1;
}
function key(event: KeyboardEvent): void {
  if (event.key.toLowerCase() !== "n" || inField(event) || event.ctrlKey || event.metaKey) return;
  event.preventDefault();
  void nextTick(() => nameField.value?.focus());
}
useEventListener("keydown", key);
</script>

<template>
  <main class="shelf">
    <header>
      <div class="top">
        <h1>{{ $t("Vivid Plank") }}</h1>
        <span class="rooms">
          <RouterLink to="/workshop" class="act">{{ $t("Workshop") }}</RouterLink>
          <RouterLink to="/stock" class="act">{{ $t("Stock room") }}</RouterLink>
        </span>
      </div>
      <p class="soft">{{ $t("From the drawing to square blanks, with every board foot accounted for.") }}</p>
    </header>
    <form class="new" @submit.prevent="add">
      <label class="field wide"
        ><span>{{ $t("Start a new piece") }}</span
        ><input
          ref="nameField"
          v-model="name"
          class="line-input"
          :placeholder="$t('What are you making?')"
          maxlength="200"
      /></label>
      <ChoiceField v-model="system" class="units" :label="$t('Measured in')" :options="SYSTEMS" />
      <ElButton class="act lead" native-type="submit">{{ $t("Start") }}</ElButton>
      <FileButton accept=".json,application/json" @file="bring">{{ $t("Open a job file") }}</FileButton>
    </form>
    <p v-if="error" class="note">{{ error.message }}</p>
    <ul v-if="data" class="rows" :aria-label="$t('Projects')">
      <li v-for="p in data" :key="p.pk">
        <RouterLink :to="{ name: p.parts ? 'list' : 'draw', params: { project: p.pk } }" class="row">
          <span class="name"
            >{{ p.name }}<em v-if="p.demo">{{ $t("demo") }}</em></span
          >
          <span class="facts">{{
            $t("{parts} parts · {boards} boards · {laid_out}", {
              parts: p.parts,
              boards: p.boards,
              laid_out: p.laid_out ? $t("laid out") : $t("not laid out yet"),
            })
          }}</span>
          <span class="soft when">{{ when(p.edited) }}</span>
          <span class="mini" aria-hidden="true"
            ><span :style="{ width: `${(progress(p) / 7) * 100}%` }"
          /></span>
        </RouterLink>
        <ElButton
          v-if="confirming !== p.pk"
          class="act quiet"
          :aria-label="$t('Remove {name}', { name: p.name })"
          @click="confirming = p.pk"
        >
          {{ $t("Remove") }}
        </ElButton>
        <span v-else class="sure"
          ><ElButton class="act lead" @click="remove(p.pk)">{{ $t("Remove for good") }}</ElButton
          ><ElButton class="act" @click="confirming = 0">{{ $t("Keep it") }}</ElButton></span
        >
      </li>
      <li v-if="!data.length" class="empty">
        {{ $t("The shelf is empty. Name a piece above, or open a job file.") }}
      </li>
    </ul>
    <p class="soft keys">
      <I18nT keypath="Press {help} for help, {find} to find anything." scope="global"
        ><template #help><b>?</b></template
        ><template #find
          ><b>{{ $t("Ctrl K") }}</b></template
        ></I18nT
      >{{ " "
      }}<ElButton v-if="demo" class="act quiet" @click="emit('round', demo.pk)">{{
        $t("Walk through the demo")
      }}</ElButton>
    </p>
  </main>
</template>

<style scoped>
.units {
  min-width: 11rem;
}
.shelf {
  max-width: 62rem;
  margin: 0 auto;
  padding: 2.4rem 1.2rem 4rem;
}
.top {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.rooms {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 0.6rem;
}
h1 {
  font-size: 3rem;
  font-weight: 820;
  font-stretch: 80%;
}
.new {
  display: flex;
  flex-wrap: wrap;
  align-items: flex-end;
  gap: 0.8rem;
  margin: 1.8rem 0 2.2rem;
}
.wide {
  flex: 1 1 18rem;
}
.wide input {
  font-size: 1.3rem;
  font-weight: 620;
}
.rows {
  list-style: none;
  margin: 0;
  padding: 0;
}
.rows li {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  border-bottom: 8px solid var(--ink);
  margin-bottom: 1.4rem;
}
.row {
  flex: 1;
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 0.2rem 1.6rem;
  align-items: baseline;
  padding: 0.5rem 0.3rem 0;
  color: inherit;
  text-decoration: none;
}
.row:hover .name {
  text-decoration: underline;
  text-decoration-thickness: 3px;
  text-decoration-color: var(--crayon);
}
.name {
  font-size: 1.5rem;
  font-weight: 720;
  font-stretch: 88%;
}
.name em {
  font-style: normal;
  font-size: 0.8rem;
  font-weight: 560;
  margin-left: 0.7rem;
  padding: 0.05rem 0.5rem;
  background: var(--tape);
}
.mini {
  grid-column: 1 / -1;
  height: 14px;
  background: var(--plaster-deep);
}
.mini span {
  display: block;
  height: 100%;
  background-color: var(--tape);
  background-image: repeating-linear-gradient(90deg, var(--ink) 0 1px, transparent 1px 12px);
  background-size: 100% 6px;
  background-repeat: no-repeat;
  border-right: 6px solid var(--steel);
}
.sure {
  display: flex;
  gap: 0.4rem;
}
.empty {
  padding: 1rem 0;
}
@media (max-width: 640px) {
  .row {
    grid-template-columns: 1fr;
  }
  .rows li {
    flex-direction: column;
    align-items: stretch;
  }
}
</style>

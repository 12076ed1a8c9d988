<script setup lang="ts">
/** The stock room: every board there is, in projects and on the rack, found by what has to come out of it. */
import { I18nT } from "vue-i18n";
import { ElButton } from "element-plus";
import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/vue-query";
import { computed, ref, watch } from "vue";
import { useRouter } from "vue-router";
import { api, type Schemas } from "../../api/client";
import Len from "../../controls/Len.vue";
import MeasureField from "../../controls/MeasureField.vue";
import { withErrorToast } from "../../controls/withErrorToast";
import type { System } from "../../measure";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import { weight, wood as woodAmount } from "../../wood";
import { t } from "../../i18n/i18n";

type Entry = Schemas["StockEntryBody"];
const router = useRouter();
const client = useQueryClient();
const wood = ref("");
const thickness = ref<number | null>(null);
const length = ref<number | null>(null);
const width = ref<number | null>(null);
const system = ref<System>((localStorage.getItem("stock-system") as System | null) ?? "in");
watch(system, (now) => localStorage.setItem("stock-system", now));
const asked = computed(() => ({
  wood: wood.value,
  thickness: thickness.value ?? 0,
  length: length.value ?? 0,
  width: width.value ?? 0,
}));
const { data, error } = useQuery({
  queryKey: computed(() => ["stock", asked.value]),
  queryFn: async () => (await api.GET("/api/stock", { params: { query: asked.value } })).data!,
  placeholderData: keepPreviousData,
});
const { data: shelf } = useQuery({
  queryKey: ["shelf"],
  queryFn: async () => (await api.GET("/api/projects")).data!.projects,
});
const places = computed(() => [{ pk: data.value?.rack ?? 0, name: t("the rack") }, ...(shelf.value ?? [])]);
const searching = computed(() => Boolean(asked.value.thickness || asked.value.length || asked.value.width));
const boards = computed(() => data.value?.boards ?? []);
const feet = computed(() =>
  boards.value.filter((b) => b.state !== "cut").reduce((sum, b) => sum + b.board_feet, 0),
);
const STATES = { free: t("free"), planned: t("laid out"), cut: t("cut up") } as const;
/** Longest bar is the longest board. */
const longest = computed(() => Math.max(1, ...boards.value.map((b) => b.length)));

async function carry(entry: Entry, to: string): Promise<void> {
  await withErrorToast(async () => {
    await api.POST("/api/stock/carry", {
      body: { project: entry.project, version: entry.version, board: entry.id, to_project: Number(to) },
    });
    await client.invalidateQueries({ queryKey: ["stock"] });
    await client.invalidateQueries({ queryKey: ["project"] });
  });
}
function open(entry: Entry): void {
  void router.push({ name: "boards", params: { project: entry.project, board: entry.id } });
}
function clear(): void {
  wood.value = "";
  thickness.value = length.value = width.value = null;
}
const SYSTEMS = [
  ["in", "inches"],
  ["mm", "millimetres"],
] as const;
</script>

<template>
  <main class="room">
    <header class="stage-head">
      <RouterLink to="/" class="act quiet">{{ $t("← The shelf") }}</RouterLink>
      <h1 class="grow">{{ $t("Stock room") }}</h1>
      <a class="act" href="/api/stock/labels" target="_blank">{{ $t("Labels for the boards") }}</a>
      <RouterLink v-if="data" class="act" :to="{ name: 'boards', params: { project: data.rack } }">{{
        $t("Open the rack")
      }}</RouterLink>
    </header>
    <form class="asked" @submit.prevent>
      <label class="field"
        ><span>{{ $t("Wood") }}</span
        ><input v-model.lazy="wood" class="line-input" :placeholder="$t('any')"
      /></label>
      <MeasureField
        :label="$t('A piece so thick')"
        :system="system"
        :model-value="thickness"
        @update:model-value="thickness = $event || null"
      />
      <MeasureField
        :label="$t('so long')"
        :system="system"
        :model-value="length"
        @update:model-value="length = $event || null"
      />
      <MeasureField
        :label="$t('so wide')"
        :system="system"
        :model-value="width"
        @update:model-value="width = $event || null"
      />
      <ChoiceField v-model="system" :label="$t('Measured in')" :options="SYSTEMS" />
      <ElButton v-if="searching || wood" class="act quiet" @click="clear">{{ $t("Show all") }}</ElButton>
    </form>
    <p v-if="error" class="note">{{ error.message }}</p>
    <p v-if="data" role="status" class="soft">
      {{
        $t("{boards}{found}, {feet} not cut yet.", {
          boards: $t("{n} board | {n} boards", boards.length),
          found: searching
            ? $t(" out of which it comes, clear on one face{width}", {
                width: width ? "" : " " + $t("and 2 in wide"),
              })
            : "",
          feet: woodAmount(feet, system),
        })
      }}
    </p>
    <p v-if="data && !boards.length" class="note">
      {{
        searching || wood
          ? $t("No board here holds that. Ask for it thinner, shorter or narrower.")
          : $t("No board is recorded yet. Offcuts come here by themselves when a board is cut.")
      }}
    </p>
    <ul class="boards" :aria-label="$t('Boards in stock')">
      <li v-for="b in boards" :key="`${b.project}-${b.id}`" :class="b.state">
        <button class="name" @click="open(b)">
          <b>{{ b.id }}</b> <span>{{ b.species }} {{ b.quarter }}</span>
        </button>
        <div class="lies">
          <div class="bar" :style="{ width: `${(b.length / longest) * 100}%` }">
            <i
              v-if="b.place"
              :style="{
                left: `${(b.place.x0 / b.length) * 100}%`,
                width: `${((b.place.x1 - b.place.x0) / b.length) * 100}%`,
              }"
            />
          </div>
          <span
            ><I18nT keypath="{size}, flat {flat}, sound for {clear}" scope="global"
              ><template #size
                ><Len :ticks="b.length" :system="system" about /> ×
                <Len :ticks="b.width" :system="system" about /></template
              ><template #flat><Len :ticks="b.flat" :system="system" about /></template
              ><template #clear><Len :ticks="b.clear" :system="system" about /></template></I18nT
          ></span>
          <span v-if="b.place" class="comes"
            ><I18nT keypath="comes out from {from} to {to}" scope="global"
              ><template #from><Len :ticks="b.place.x0" :system="system" about /></template
              ><template #to><Len :ticks="b.place.x1" :system="system" about /></template></I18nT
          ></span>
        </div>
        <div class="where">
          <b>{{ b.rack ? $t("the rack") : b.project_name }}</b><span class="soft"
            >{{ STATES[b.state]
            }}{{
              b.used_for.length
                ? `: ${b.used_for.map((u) => u.replaceAll(" ", "\u00a0")).join(", ")}`
                : b.note
                  ? `, ${b.note}`
                  : ""
            }}</span
          >
        </div>
        <span class="feet"
          >{{ woodAmount(b.board_feet, system)
          }}<template v-if="b.weight_kg">, {{ weight(b.weight_kg, system, 1) }}</template></span
        >
        <ChoiceField
          v-if="b.state !== 'cut'"
          class="carry"
          :label="$t('Carry {id} to', { id: b.id })"
          hide-label
          :placeholder="$t('carry to …')"
          :options="places.filter((p) => p.pk !== b.project).map((p) => [p.pk, p.name] as const)"
          :model-value="undefined"
          @update:model-value="carry(b, String($event))"
        />
        <span v-else />
      </li>
    </ul>
  </main>
</template>

<style scoped>
.room {
  max-width: 74rem;
  margin: 0 auto;
  padding: 1rem 1.2rem 3rem;
}
.asked {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(9rem, 1fr));
  gap: 1rem;
  align-items: end;
  margin: 1rem 0;
}
.boards {
  list-style: none;
  padding: 0;
  border-top: 2px solid var(--ink);
}
.boards li {
  display: grid;
  grid-template-columns: 10rem minmax(14rem, 2fr) minmax(12rem, 1.6fr) 7.5rem 10rem;
  gap: 0.3rem 1.2rem;
  align-items: center;
  padding: 0.5rem 0;
  border-bottom: 1px solid var(--ink-faint);
}
.boards li.cut {
  opacity: 0.6;
}
.name {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  text-align: left;
  min-height: 44px;
  border: 0;
  padding: 0;
  background: none;
  cursor: pointer;
  text-decoration: underline;
  text-underline-offset: 3px;
}
.name b {
  font-size: 1.25rem;
}
.lies {
  display: flex;
  flex-direction: column;
  gap: 0.2rem;
}
.bar {
  position: relative;
  height: 14px;
  background: #dcbd8c;
  border: 1px solid var(--ink);
}
.bar i {
  position: absolute;
  inset: 0 auto 0 0;
  background: var(--chalk);
}
.comes {
  color: var(--chalk-ink);
  font-weight: 600;
}
.where {
  display: flex;
  flex-direction: column;
}
.feet {
  font-size: 0.92rem;
}
.carry {
  min-width: 9rem;
}
@media (max-width: 900px) {
  .boards li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .lies,
  .where {
    grid-column: 1 / -1;
  }
}
</style>

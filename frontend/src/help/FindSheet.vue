<script setup lang="ts">
/** Ctrl K finds anything by its name: a stage, a part, a board, help, something to do. */
import { useEventListener } from "@vueuse/core";
import { useQueryClient } from "@tanstack/vue-query";
import { ElAutocomplete } from "element-plus";
import "element-plus/es/components/autocomplete/style/css";
import { computed, nextTick, ref } from "vue";
import { useRoute, useRouter } from "vue-router";
import type { Project } from "../api/client";
import { projectKey } from "../api/project";
import AppDialog from "../controls/AppDialog.vue";
import { STAGES } from "../stages/stages";
import { found, type Findable } from "./find";
import { showHelp } from "./showing";
import { TERMS, type Term } from "./terms";
import { TOPICS } from "./topics";
import { t } from "../i18n/i18n";

const open = ref(false);
const asked = ref("");
const route = useRoute();
const router = useRouter();
const client = useQueryClient();
const all = ref<Findable[]>([]);
const shown = computed(() => found(all.value, asked.value));
type Found = Findable & { value: string };
function suggest(_: string, show: (found: Found[]) => void): void {
  show(shown.value.map((one) => ({ ...one, value: one.name })));
}

/** Everything there is from where the page is now. */
function everything(): Findable[] {
  const pk = Number(route.params.project) || 0;
  const project = pk ? client.getQueryData<Project>(projectKey(pk)) : undefined;
  const to = (name: string, more: object = {}) => {
    void router.push({ name, params: { project: pk }, ...more });
  };
  const place = (name: string, route: string, more = ""): Findable => ({
    kind: "go to",
    name,
    more,
    take: () => to(route),
  });
  const here: Findable[] = project
    ? [
        ...STAGES.map((s) => place(s.word, s.name)),
        place(t("At the machine"), "machine", t("steps passes")),
        place(t("In the aisle"), "aisle", t("buy yard")),
        place(t("In the yard"), "survey", t("measure board quick")),
        place(t("Chalk marks"), "chalk", t("lay out")),
        ...project.parts.map((p): Findable => ({
          kind: "part",
          name: `${p.id} ${p.name}`,
          more: p.species,
          take: () => to("list", { query: { part: p.id } }),
        })),
        ...project.boards.map((b): Findable => ({
          kind: "board",
          name: b.id,
          more: b.species,
          take: () => void router.push({ name: "boards", params: { project: pk, board: b.id } }),
        })),
      ]
    : [];
  return [
    ...here,
    { kind: "go to", name: t("The shelf"), more: t("projects start"), take: () => void router.push("/") },
    {
      kind: "go to",
      name: t("Workshop"),
      more: t("machines people learned books"),
      take: () => void router.push(`/workshop`),
    },
    {
      kind: "go to",
      name: t("Stock room"),
      more: t("rack offcuts"),
      take: () => void router.push("/stock"),
    },
    { kind: "do", name: t("Show the keys"), more: "shortcuts", take: () => showHelp("keys") },
    ...TOPICS.map((topic): Findable => ({
      kind: "help",
      name: topic.title,
      more: topic.says.join(" "),
      take: () => showHelp("stages", topic.stage),
    })),
    ...(Object.keys(TERMS) as Term[]).map((term): Findable => ({
      kind: "word",
      name: term,
      more: TERMS[term],
      take: () => showHelp("words"),
    })),
  ];
}
/** Enter takes the one that is lit, or the first. */
function take(one: Partial<Found>): void {
  const go = one.take ?? shown.value[0]?.take;
  if (!go) return;
  open.value = false;
  void nextTick(go);
}
function key(event: KeyboardEvent): void {
  if (event.key.toLowerCase() !== "k" || !(event.ctrlKey || event.metaKey) || event.altKey) return;
  event.preventDefault();
  all.value = everything();
  asked.value = "";
  open.value = !open.value;
}
useEventListener("keydown", key);
</script>

<template>
  <AppDialog v-model="open" :title="$t('Find')" width="36rem" top="8vh">
    <ElAutocomplete
      v-model="asked"
      size="large"
      :placeholder="$t('A stage, a part, a board, a word')"
      :aria-label="$t('What is it called')"
      select-when-unmatched
      :debounce="0"
      :fetch-suggestions="suggest"
      @select="take($event as Partial<Found>)"
    >
      <template #default="{ item }">
        <span class="soft kind">{{ item.kind }}</span> {{ item.value }}
      </template>
    </ElAutocomplete>
    <p v-if="!shown.length" class="soft none" role="status">{{ $t("Nothing is called so here.") }}</p>
  </AppDialog>
</template>

<style scoped>
.kind {
  display: inline-block;
  min-width: 4.5rem;
}
.none {
  margin-top: 0.8rem;
}
</style>

<script setup lang="ts">
/** A project under its tape: the way through it, undo and redo, and the stage's own page. */
import { useEventListener } from "@vueuse/core";
import { ElButton } from "element-plus";
import { computed, watch } from "vue";
import { useRoute, useRouter } from "vue-router";
import { useLayout } from "../api/layout";
import { asOf } from "../api/client";
import { heldNames, settingsHeld, settingsTrouble } from "../api/heldSettings";
import { useProjectWorkshop } from "../api/workshop";
import { unsaved, useProject, waiting } from "../api/project";
import { currency } from "../money";
import { inField } from "../controls/keys";
import RefusedSheet from "../controls/RefusedSheet.vue";
import SendSettings from "../controls/SendSettings.vue";
import TapeNav from "../controls/TapeNav.vue";
import { STAGES, type StageName } from "./stages";
import { t, tag } from "../i18n/i18n";

const route = useRoute();
const router = useRouter();
const { pk, project, trouble, undo, redo } = useProject();
const { data: layout } = useLayout(pk);
const { workshop } = useProjectWorkshop(pk);
watch(workshop, (now) => {
  if (now) currency.value = now.workshop.currency ?? "";
});

const current = computed(() => (STAGES.find((s) => s.name === route.name)?.name ?? "") as StageName | "");
/** How far the project has come: parts pull the tape to Buy, boards to Lay out, a plan to the end. */
const reached = computed(() => {
  if (!project.value?.parts.length) return 1;
  if (!project.value.boards.length) return 3;
  return layout.value?.standing && !layout.value.standing.stale ? 6 : 4;
});

const clock = (at: Date) => at.toLocaleTimeString(tag(), { hour: "2-digit", minute: "2-digit" });
const held = computed(() => (waiting.value && unsaved.value > 0) || settingsHeld.value > 0);
const status = computed(() => {
  if (settingsTrouble.value)
    return t("not taken by the server: {settingsTrouble}; kept in this browser until it is put right", {
      settingsTrouble: settingsTrouble.value,
    });
  if (settingsHeld.value && (waiting.value || !unsaved.value)) {
    return t(
      "{n} change waits for the server; kept in this browser | {n} changes wait for the server; kept in this browser",
      settingsHeld.value + unsaved.value,
    );
  }
  if (!unsaved.value && asOf.value)
    return t("the server does not answer: shown as of {asOf}", { asOf: clock(asOf.value) });
  if (!unsaved.value) return t("all saved");
  if (!waiting.value) return t("saving …");
  return t(
    "{n} edit waits for the server; kept in this browser | {n} edits wait for the server; kept in this browser",
    unsaved.value,
  );
});

function key(event: KeyboardEvent): void {
  const mod = event.ctrlKey || event.metaKey;
  if (mod && event.key.toLowerCase() === "z" && !inField(event)) {
    event.preventDefault();
    void (event.shiftKey ? redo() : undo());
    return;
  }
  if (mod || event.altKey || inField(event)) return;
  const stage = project.value?.rack ? undefined : STAGES[Number(event.key) - 1];
  if (event.key === "0") void router.push("/");
  else if (stage) void router.push({ name: stage.name, params: { project: pk.value } });
}
useEventListener("keydown", key);
</script>

<template>
  <SendSettings v-for="h in heldNames" :key="h.key" :name="h.name" :of="h.of" />
  <TapeNav :pk="pk" :name="project?.name ?? ''" :reached="reached" :current="current" :rack="project?.rack" />
  <div v-if="project" class="undo-bar">
    <ElButton class="act quiet" :disabled="!project.undo" @click="undo()">
      ↶ <span>{{ project.undo ? $t("Undo {undo}", { undo: project.undo }) : $t("Nothing to undo") }}</span>
    </ElButton>
    <ElButton v-if="project.redo" class="act quiet" @click="redo()">
      ↷ <span>{{ $t("Redo {redo}", { redo: project.redo }) }}</span>
    </ElButton>
    <RouterLink to="/workshop" class="act quiet shop">{{ $t("Workshop") }}</RouterLink>
    <RefusedSheet />
    <span class="saved" :class="{ soft: !held }" role="status">{{ status }}</span>
  </div>
  <main v-if="trouble" class="stage">
    <p class="note">
      {{ trouble.message }}. <RouterLink to="/">{{ $t("Back to the shelf") }}</RouterLink>
    </p>
  </main>
  <main v-else-if="project" id="main" tabindex="-1"><RouterView /></main>
</template>

<style scoped>
.undo-bar {
  display: flex;
  align-items: center;
  gap: 0.4rem;
  padding: 0.15rem 1rem;
  font-size: 0.85rem;
}
.undo-bar .act {
  font-weight: 520;
  min-height: 44px;
}
.shop {
  margin-left: auto;
}
</style>

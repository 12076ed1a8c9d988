<script setup lang="ts">
import { useQueryClient } from "@tanstack/vue-query";
import { ElConfigProvider } from "element-plus";
import en from "element-plus/es/locale/lang/en";
import { defineAsyncComponent, nextTick, onMounted } from "vue";
import { useRouter } from "vue-router";
import { resume } from "./api/project";
import ConflictSheet from "./controls/ConflictSheet.vue";
import FindSheet from "./help/FindSheet.vue";
import HelpSheet from "./help/HelpSheet.vue";
import { help } from "./help/showing";
import { tour } from "./help/touring";

/** Loaded when somebody wants to be shown round. */
const GuidedTour = defineAsyncComponent(() => import("./help/GuidedTour.vue"));

const client = useQueryClient();
function skip(): void {
  const main = document.querySelector<HTMLElement>("main");
  if (main) main.tabIndex = -1;
  main?.focus({ preventScroll: true });
}
function round(project: number): void {
  help.open = false;
  Object.assign(tour, { open: true, project });
}
onMounted(() => void resume(client));
/** What had the focus may be gone with its page: the keys go on in the new one. */
useRouter().afterEach(async (_to, from) => {
  await nextTick();
  if (from.matched.length && document.activeElement === document.body) skip();
});
</script>

<template>
  <a class="skip" href="#main" @click.prevent="skip">{{ $t("To the page itself") }}</a>
  <ElConfigProvider :locale="en">
    <RouterView @round="round" />
    <HelpSheet @round="round" />
    <FindSheet />
    <GuidedTour v-if="tour.open" />
    <ConflictSheet />
  </ElConfigProvider>
</template>

<style scoped>
.skip {
  position: fixed;
  left: 0.5rem;
  top: -4rem;
  z-index: 60;
  padding: 0.7rem 1rem;
  background: var(--ink);
  color: #fff;
}
.skip:focus {
  top: 0.5rem;
}
</style>

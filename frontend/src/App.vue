<script setup lang="ts">
import { useQueryClient } from "@tanstack/vue-query";
import { ElConfigProvider } from "element-plus";
import en from "element-plus/es/locale/lang/en";
import { defineAsyncComponent, onMounted } from "vue";
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
  main?.focus();
}
function round(project: number): void {
  help.open = false;
  Object.assign(tour, { open: true, project });
}
onMounted(() => void resume(client));
</script>

<template>
  <a class="skip" href="#main" @click.prevent="skip">To the page itself</a>
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

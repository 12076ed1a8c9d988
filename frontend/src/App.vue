<script setup lang="ts">
import { useQueryClient } from "@tanstack/vue-query";
import { onMounted } from "vue";
import { resume } from "./api/project";
import ConflictSheet from "./controls/ConflictSheet.vue";
import HelpSheet from "./controls/HelpSheet.vue";

const client = useQueryClient();
function skip(): void {
  const main = document.querySelector<HTMLElement>("main");
  if (main) main.tabIndex = -1;
  main?.focus();
}
onMounted(() => void resume(client));
</script>

<template>
  <a class="skip" href="#main" @click.prevent="skip">To the page itself</a>
  <RouterView />
  <HelpSheet />
  <ConflictSheet />
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

<script setup lang="ts">
import { onBeforeUnmount, onMounted } from "vue";
import { unsaved } from "./api/project";
import HelpSheet from "./controls/HelpSheet.vue";

function leaving(event: BeforeUnloadEvent): void {
  if (unsaved.value > 0) event.preventDefault();
}
onMounted(() => window.addEventListener("beforeunload", leaving));
onBeforeUnmount(() => window.removeEventListener("beforeunload", leaving));
</script>

<template>
  <RouterView />
  <HelpSheet />
</template>

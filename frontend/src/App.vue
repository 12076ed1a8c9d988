<script setup lang="ts">
import { useQueryClient } from "@tanstack/vue-query";
import { onMounted } from "vue";
import { resume } from "./api/project";
import ConflictSheet from "./controls/ConflictSheet.vue";
import HelpSheet from "./controls/HelpSheet.vue";

const client = useQueryClient();
onMounted(() => void resume(client));
</script>

<template>
  <RouterView />
  <HelpSheet />
  <ConflictSheet />
</template>

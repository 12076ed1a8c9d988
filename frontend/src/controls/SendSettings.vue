<script setup lang="ts">
/** Sends settings that wait for the server (heldSettings.ts) while their own page is not open. */
import { ref } from "vue";
import { useMaterials } from "../api/materials";
import { useSettings } from "../api/milling";
import { useWorkshop } from "../api/workshop";

const props = defineProps<{ name: string; of: number }>();
const of = ref(props.of);
const SENDERS: Record<string, () => unknown> = {
  materials: () => useMaterials(of),
  "milling-settings": () => useSettings(of),
  workshop: () => useWorkshop(of),
};
SENDERS[props.name]?.();
</script>

<template><span hidden /></template>

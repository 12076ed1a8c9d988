<script setup lang="ts">
/** Parts that the standing plan found no wood for: said wherever the plan is worked from. */
import { computed } from "vue";
import { useLayout } from "../api/layout";
import { useProject } from "../api/project";

const { pk, project } = useProject();
const { data } = useLayout(pk);
const unplaced = computed(() => data.value?.standing?.plan?.unplaced ?? []);
const named = computed(() => {
  const counts = new Map<string, number>();
  for (const u of unplaced.value) counts.set(u.part, (counts.get(u.part) ?? 0) + 1);
  const name = (id: string) => project.value?.parts.find((p) => p.id === id)?.name || id;
  return [...counts].map(([id, n]) => `${n} × ${name(id)}`).join(", ");
});
</script>

<template>
  <p v-if="unplaced.length" class="note" data-unplaced>
    <span
      >{{ unplaced.length === 1 ? "One part lies" : `${unplaced.length} parts lie` }} in no board and
      {{ unplaced.length === 1 ? "is" : "are" }} not among what follows: {{ named }}.
      <RouterLink :to="{ name: 'layout', params: { project: pk } }">Lay out</RouterLink> says why,
      <RouterLink :to="{ name: 'buy', params: { project: pk } }">Buy</RouterLink> what wood is short.</span
    >
  </p>
</template>

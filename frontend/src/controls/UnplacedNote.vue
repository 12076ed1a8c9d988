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
      >{{
        $t(
          "One part lies in no board and is not among what follows: {named}. | {n} parts lie in no board and are not among what follows: {named}.",
          { named },
          unplaced.length,
        )
      }}
      <RouterLink :to="{ name: 'layout', params: { project: pk } }">{{ $t("Lay out") }}</RouterLink>
      {{ $t("says why,") }}
      <RouterLink :to="{ name: 'buy', params: { project: pk } }">{{ $t("Buy") }}</RouterLink>
      {{ $t("what wood is short.") }}</span
    >
  </p>
</template>

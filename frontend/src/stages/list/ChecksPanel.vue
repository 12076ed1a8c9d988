<script setup lang="ts">
/** What a good foreman would ask before any wood is bought: what, why, and a fix where there is one. */
import { ElButton } from "element-plus";
import type { Schemas } from "../../api/client";
import { useProject } from "../../api/project";

defineProps<{ checks: Schemas["CheckBody"][] }>();
const emit = defineEmits<{ show: [string] }>();
const { edit } = useProject();

function fix(check: Schemas["CheckBody"]): void {
  void edit({ label: check.fix.toLowerCase(), put_parts: check.put_parts });
}
</script>

<template>
  <ul class="checks">
    <li v-for="(c, i) in checks" :key="i">
      <span class="marks"
        ><ElButton v-for="p in c.parts" :key="p" class="act quiet" @click="emit('show', p)">
          {{ p }}
        </ElButton></span
      >
      <p>
        <b>{{ c.what }}.</b> {{ c.why }}.
      </p>
      <ElButton v-if="c.put_parts.length" class="act" @click="fix(c)">{{ c.fix }}</ElButton>
    </li>
  </ul>
</template>

<style scoped>
.checks {
  list-style: none;
  margin: 0 0 1rem;
  padding: 0;
  background: var(--paper);
  border: 2px solid var(--ink);
  border-left: 10px solid var(--crayon);
  max-height: 22rem;
  overflow: auto;
}
li {
  display: grid;
  grid-template-columns: 6rem minmax(0, 1fr) auto;
  gap: 0.8rem;
  align-items: center;
  padding: 0.4rem 0.9rem;
  border-bottom: 1px solid var(--ink-faint);
}
.marks {
  display: flex;
  flex-wrap: wrap;
  font-weight: 760;
}
@media (max-width: 640px) {
  li {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

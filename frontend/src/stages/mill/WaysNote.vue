<script setup lang="ts">
/** What the usual machine cannot take, what is done instead, and what else could be. */
import type { Step } from "../../api/client";
import Fig from "../../controls/Fig.vue";

defineProps<{ step: Step }>();
</script>

<template>
  <div class="note ways">
    <div>
      <p>
        <b><Fig :text="step.obstacle" />.</b> Here: <Fig :text="step.ways[0]!.do" /> ({{
          step.ways[0]!.costs
        }})<template v-if="step.ways[0]!.danger">. Mind: {{ step.ways[0]!.danger }}</template
        >.
      </p>
      <details v-if="step.ways.length > 1">
        <summary>Or</summary>
        <ul>
          <li v-for="w in step.ways.slice(1)" :key="w.do">
            <Fig :text="w.do" /> ({{ w.costs }})<span v-if="w.danger" class="soft">; {{ w.danger }}</span>
          </li>
        </ul>
      </details>
    </div>
  </div>
</template>

<style scoped>
.ways ul {
  margin: 0.3rem 0 0;
  padding-left: 1.1rem;
}
.ways summary {
  cursor: pointer;
  min-height: 30px;
  font-weight: 620;
}
</style>

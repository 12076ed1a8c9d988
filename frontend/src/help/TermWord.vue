<script setup lang="ts">
/** A word of the trade, explained by a touch, the pointer or the focus. */
import { ElTooltip } from "element-plus";
import { TERMS, type Term } from "./terms";

defineProps<{ term: Term }>();
</script>

<template>
  <ElTooltip :content="TERMS[term]" :trigger="['hover', 'focus']" :show-after="200">
    <span class="term" tabindex="0"
      ><slot>{{ term }}</slot></span
    >
  </ElTooltip>
</template>

<style scoped>
.term {
  border-bottom: 2px dotted currentcolor;
  cursor: help;
}
</style>

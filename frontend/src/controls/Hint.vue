<script setup lang="ts">
/** Words about what is in it, shown while the pointer, a finger or the focus is on it. */
import { ElTooltip } from "element-plus";

defineProps<{ text: string }>();
</script>

<template>
  <ElTooltip :content="text" :trigger="['hover', 'focus']" :show-after="300" :disabled="!text">
    <slot />
  </ElTooltip>
</template>

<script setup lang="ts">
/** A line of text that is kept when it is left or Enter is pressed; while somebody types it stays as typed. */
import { ElInput } from "element-plus";
import { ref, watch } from "vue";

defineProps<{ maxlength?: number; placeholder?: string; ariaLabel?: string }>();
const kept = defineModel<string>({ required: true });
const draft = ref(kept.value);
watch(kept, (now) => (draft.value = now));
</script>

<template>
  <ElInput
    v-model="draft"
    :maxlength="maxlength ?? 200"
    :placeholder="placeholder"
    :aria-label="ariaLabel"
    @change="kept = draft.trim()"
  />
</template>

<script setup lang="ts">
/** A sheet over the page: what is filled in is not lost by a click beside it, and its first field has the focus. */
import { ElDialog } from "element-plus";
import { useTemplateRef } from "vue";

defineProps<{ title: string; width: string; top?: string }>();
const emit = defineEmits<{ closed: [] }>();
const open = defineModel<boolean>({ required: true });
const body = useTemplateRef<HTMLElement>("body");
const FIELDS = "input:not([type=file]):not([disabled]), select, textarea, [contenteditable]";

function focus(): void {
  const within = body.value;
  if (!within || within.contains(document.activeElement)) return;
  (within.querySelector<HTMLElement>(FIELDS) ?? within.querySelector<HTMLElement>("button, a"))?.focus();
}
</script>

<template>
  <ElDialog
    v-model="open"
    :title="title"
    :width="width"
    :top="top"
    :close-on-click-modal="false"
    @opened="focus"
    @closed="emit('closed')"
  >
    <div ref="body"><slot /></div>
    <template v-if="$slots.footer" #footer><slot name="footer" /></template>
  </ElDialog>
</template>

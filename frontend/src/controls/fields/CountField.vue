<script setup lang="ts">
/** A plain number, by steps or typed. */
import { ElInputNumber } from "element-plus";

defineProps<{
  label: string;
  modelValue: number;
  min?: number;
  max?: number;
  step?: number;
}>();
const emit = defineEmits<{ "update:modelValue": [number] }>();
</script>

<template>
  <div class="field">
    <span aria-hidden="true">{{ label }}</span>
    <ElInputNumber
      :model-value="modelValue"
      :aria-label="label"
      :min="min"
      :max="max"
      :step="step"
      @change="typeof $event === 'number' && $event !== modelValue && emit('update:modelValue', $event)"
    />
  </div>
</template>

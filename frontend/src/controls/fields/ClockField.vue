<script setup lang="ts">
/** A time of day, in minutes after midnight. */
import { ElTimePicker } from "element-plus";

defineProps<{ label: string; modelValue: number }>();
const emit = defineEmits<{ "update:modelValue": [number] }>();
const written = (minutes: number) =>
  `${String(Math.floor(minutes / 60)).padStart(2, "0")}:${String(minutes % 60).padStart(2, "0")}`;
function read(text: string | null): void {
  const [hours, minutes] = (text ?? "").split(":").map(Number);
  if (hours !== undefined && minutes !== undefined) emit("update:modelValue", hours * 60 + minutes);
}
</script>

<template>
  <div class="field">
    <span aria-hidden="true">{{ label }}</span>
    <ElTimePicker
      :model-value="written(modelValue)"
      format="HH:mm"
      value-format="HH:mm"
      :clearable="false"
      :aria-label="label"
      @update:model-value="read($event as string)"
    />
  </div>
</template>

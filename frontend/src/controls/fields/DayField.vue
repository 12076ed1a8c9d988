<script setup lang="ts">
/** A day of the calendar, as "2026-05-31". */
import { ElDatePicker } from "element-plus";

defineProps<{ label: string }>();
const day = defineModel<string>({ required: true });
</script>

<template>
  <div class="field">
    <span aria-hidden="true">{{ label }}</span>
    <ElDatePicker
      v-model="day"
      type="date"
      value-format="YYYY-MM-DD"
      format="YYYY-MM-DD"
      :clearable="false"
      :aria-label="label"
    />
  </div>
</template>

<script setup lang="ts">
/** A wood: one of those that are known, found by a few letters, or any other that is typed. */
import { ElOption, ElSelect } from "element-plus";
import { computed } from "vue";
import { useEscape } from "./escape";
import { useWoods } from "../../api/woods";

const props = defineProps<{ label: string; placeholder?: string; hideLabel?: boolean }>();
const wood = defineModel<string>({ required: true });
const woods = useWoods();
const all = computed(() => [...new Set([...(wood.value ? [wood.value] : []), ...woods.value])]);
const words = computed(() => props.placeholder ?? " ");
const { expanded, escape } = useEscape();
</script>

<template>
  <div class="field" @keydown.capture="escape">
    <span :class="{ sr: hideLabel }" aria-hidden="true">{{ label }}</span>
    <ElSelect
      :model-value="wood || undefined"
      :aria-label="label"
      :placeholder="words"
      filterable
      allow-create
      default-first-option
      @visible-change="expanded = $event"
      @update:model-value="wood = ($event ?? '').trim()"
    >
      <ElOption v-for="w in all" :key="w" :value="w" :label="w" />
    </ElSelect>
  </div>
</template>

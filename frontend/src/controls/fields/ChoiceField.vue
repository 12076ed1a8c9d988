<script setup lang="ts" generic="V extends string | number">
/** One of a few, with its label over it; under headings where there are `groups`. */
import { ElOption, ElOptionGroup, ElSelect } from "element-plus";
import { computed } from "vue";
import { useEscape } from "./escape";

type Option = readonly [value: V, word: string];
const props = defineProps<{
  label: string;
  options?: readonly Option[];
  groups?: readonly { label: string; options: readonly Option[] }[];
  hideLabel?: boolean;
  placeholder?: string;
}>();
const value = defineModel<V | undefined>({ required: true });
/** A long list is searched by typing. */
const many = computed(() => (props.options?.length ?? 0) > 9);
const { expanded, escape } = useEscape();
</script>

<template>
  <div class="field" @keydown.capture="escape">
    <span :class="{ sr: hideLabel }" aria-hidden="true">{{ label }}</span>
    <ElSelect
      v-model="value"
      :aria-label="label"
      :filterable="many"
      :placeholder="placeholder ?? ' '"
      :empty-values="[null, undefined]"
      @visible-change="expanded = $event"
    >
      <ElOptionGroup v-for="g in groups ?? []" :key="g.label" :label="g.label">
        <ElOption v-for="[v, word] in g.options" :key="v" :value="v" :label="word" />
      </ElOptionGroup>
      <ElOption v-for="[v, word] in options ?? []" :key="v" :value="v" :label="word" />
    </ElSelect>
  </div>
</template>

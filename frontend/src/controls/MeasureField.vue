<script setup lang="ts">
/** The one field for lengths: takes every notation, shows the project's, says at once what it understood. */
import { computed, ref, useId, watch } from "vue";
import { isMetric, MeasureError, parse, show, unitWord, type System } from "../measure";

const props = defineProps<{
  modelValue: number | null;
  system: System;
  label: string;
  hideLabel?: boolean;
  signed?: boolean;
  compact?: boolean;
}>();
const emit = defineEmits<{ "update:modelValue": [number] }>();

const id = useId();
const typing = ref(false);
const text = ref("");
const plain = computed(() => (props.modelValue === null ? "" : show(props.modelValue, props.system)));
watch(plain, (now) => { if (!typing.value) text.value = now; }, { immediate: true });

const read = computed<{ ticks?: number; why?: string }>(() => {
  if (!text.value.trim()) return {};
  try {
    return { ticks: parse(text.value, props.system, props.signed) };
  } catch (problem) {
    return { why: problem instanceof MeasureError ? problem.why : String(problem) };
  }
});

const understood = computed(() => {
  if (!typing.value || text.value === plain.value) return "";
  if (read.value.why) return `'${text.value}' ${read.value.why}`;
  if (read.value.ticks === undefined) return "";
  const other: System = isMetric(props.system) ? "in" : "mm";
  const ticks = read.value.ticks;
  const here = `${show(ticks, props.system)} ${props.system === "ft-in" ? "" : unitWord(props.system)}`;
  const step = isMetric(other) ? 32 : 127;
  return `${here} = ${show(Math.round(ticks / step) * step, other)} ${unitWord(other)}`;
});

function keep(): void {
  typing.value = false;
  if (read.value.ticks !== undefined && read.value.ticks !== props.modelValue) emit("update:modelValue", read.value.ticks);
  if (read.value.ticks !== undefined) text.value = show(read.value.ticks, props.system);
  else if (!text.value.trim()) text.value = plain.value;
}

/** Leave the field as it was; where there is nothing to leave, the key is the sheet's. */
function back(event: KeyboardEvent): void {
  if (typing.value) event.stopPropagation();
  text.value = plain.value;
  typing.value = false;
}
</script>

<template>
  <div class="measure" :class="{ compact, wrong: !!read.why }">
    <label :for="id" :class="{ sr: hideLabel }">{{ label }}</label>
    <input
      :id="id"
      v-model="text"
      class="line-input"
      autocomplete="off"
      spellcheck="false"
      :aria-invalid="!!read.why"
      :aria-describedby="`${id}-told`"
      @focus="($event.target as HTMLInputElement).select()"
      @input="typing = true"
      @change="keep"
      @blur="keep"
      @keydown.enter="keep"
      @keydown.esc="back"
    />
    <span :id="`${id}-told`" class="told" role="status">{{ read.why && !typing ? `'${text}' ${read.why}` : understood }}</span>
  </div>
</template>

<style scoped>
.measure {
  position: relative;
  display: flex;
  flex-direction: column;
  gap: 0.2rem;
  min-width: 0;
}
label {
  font-size: 0.8rem;
  color: var(--ink-soft);
  font-weight: 560;
}
.line-input {
  font-size: 1.15rem;
  font-weight: 600;
}
.compact .line-input {
  font-size: 1rem;
  min-height: 36px;
  border-bottom-color: var(--ink-faint);
  background: none;
  text-align: right;
  padding: 0.2rem 0.4rem;
}
.compact .line-input:focus {
  background: var(--paper);
}
.wrong .line-input {
  border-bottom-color: var(--crayon);
  text-decoration: underline wavy var(--crayon);
}
.told {
  position: absolute;
  z-index: 5;
  top: 100%;
  left: 0;
  min-width: max-content;
  max-width: 20rem;
  padding: 0.25rem 0.5rem;
  background: var(--ink);
  color: #fff;
  font-size: 0.8rem;
  white-space: normal;
}
.told:empty {
  display: none;
}
.wrong .told {
  border-left: 6px solid var(--crayon);
}
</style>

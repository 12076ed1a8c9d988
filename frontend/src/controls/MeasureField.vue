<script setup lang="ts">
/** The one field for lengths: takes every notation, shows the project's, says at once what it understood. */
import { computed, ref, useId, watch } from "vue";
import { isMetric, MeasureError, parse, show, type System, showUnit, onRule } from "../measure";

const props = defineProps<{
  modelValue: number | null;
  system: System;
  label: string;
  hideLabel?: boolean;
  signed?: boolean;
  compact?: boolean;
  /** The formula the value comes from, "" for none; undefined where formulas are not taken. */
  formula?: string;
  /** What a formula comes to, asked while it is typed. */
  workOut?: (text: string) => Promise<{ ticks: number | null; why: string }>;
}>();
const emit = defineEmits<{ "update:modelValue": [number]; formula: [string] }>();

const id = useId();
const typing = ref(false);
const text = ref("");
const plain = computed(() => (props.modelValue === null ? "" : show(props.modelValue, props.system)));
watch(
  plain,
  (now) => {
    if (!typing.value) text.value = now;
  },
  { immediate: true },
);
const isFormula = computed(() => props.formula !== undefined && text.value.trim().startsWith("="));
const workedOut = ref<{ text: string; ticks: number | null; why: string }>();
watch([text, typing], async ([now]) => {
  if (!isFormula.value || !typing.value || !props.workOut) return;
  const found = await props.workOut(now.trim().slice(1));
  if (text.value === now) workedOut.value = { text: now, ...found };
});

const read = computed<{ ticks?: number; why?: string }>(() => {
  if (!text.value.trim() || isFormula.value) return {};
  try {
    return { ticks: parse(text.value, props.system, props.signed) };
  } catch (problem) {
    return { why: problem instanceof MeasureError ? problem.why : String(problem) };
  }
});

const understood = computed(() => {
  if (!typing.value || text.value === plain.value) return "";
  if (isFormula.value) {
    const found = workedOut.value?.text === text.value ? workedOut.value : undefined;
    if (!found) return "";
    return found.ticks === null ? found.why : `= ${showUnit(found.ticks, props.system)}`;
  }
  if (read.value.why) return `'${text.value}' ${read.value.why}`;
  if (read.value.ticks === undefined) return "";
  const other: System = isMetric(props.system) ? "in" : "mm";
  const ticks = read.value.ticks;
  return `${showUnit(ticks, props.system)} = ${showUnit(onRule(ticks, other), other)}`;
});

function enter(event: FocusEvent): void {
  if (props.formula) text.value = `=${props.formula}`;
  void Promise.resolve().then(() => (event.target as HTMLInputElement).select());
}
function keep(): void {
  const typed = typing.value;
  typing.value = false;
  if (isFormula.value) {
    if (typed && text.value.trim().slice(1).trim() !== props.formula)
      emit("formula", text.value.trim().slice(1).trim());
    text.value = plain.value;
    return;
  }
  if (read.value.ticks !== undefined && read.value.ticks !== props.modelValue)
    emit("update:modelValue", read.value.ticks);
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
  <div
    class="measure"
    :class="{ compact, wrong: !!read.why, formed: !!formula, forming: isFormula }"
    :title="formula ? `= ${formula}` : undefined"
  >
    <label :for="id" :class="{ sr: hideLabel }">{{ label }}</label>
    <input
      :id="id"
      v-model="text"
      class="line-input"
      autocomplete="off"
      spellcheck="false"
      :aria-invalid="!!read.why"
      :aria-describedby="`${id}-told`"
      @focus="enter"
      @input="typing = true"
      @change="keep"
      @blur="keep"
      @keydown.enter="keep"
      @keydown.esc="back"
    />
    <span :id="`${id}-told`" class="told" role="status">{{
      read.why && !typing ? `'${text}' ${read.why}` : understood
    }}</span>
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
.formed .line-input {
  border-bottom: 2px dotted var(--chalk);
}
/* A formula is longer than its figure: it is written over the cells beside it. */
.compact.forming {
  min-height: 36px;
}
.compact.forming .line-input {
  position: absolute;
  z-index: 6;
  right: 0;
  width: 19rem;
  background: var(--paper);
  text-align: left;
}
.compact.forming .told {
  top: 38px;
  left: auto;
  right: 0;
}
.told:empty {
  display: none;
}
.wrong .told {
  border-left: 6px solid var(--crayon);
}
</style>

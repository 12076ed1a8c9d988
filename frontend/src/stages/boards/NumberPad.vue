<script setup lang="ts">
/** Figures with one thumb: whole ones, a point, and fractions that add up. */
import { isMetric, type System } from "../../measure";

const props = defineProps<{ system: System; fine?: boolean }>();
const emit = defineEmits<{ press: [string] }>();
const FRACTIONS: [string, string][] = [
  ["/8", "½"],
  ["/4", "¼"],
  ["/2", "⅛"],
  ["/1", "1⁄16"],
];
const FINE: [string, string][] = [
  ["/0.5", "1⁄32"],
  ["/0.25", "1⁄64"],
];
const fractions = isMetric(props.system) ? [] : props.fine ? [...FRACTIONS, ...FINE] : FRACTIONS;
</script>

<template>
  <div class="pad">
    <div
      v-if="fractions.length"
      class="fractions"
      :style="{ gridTemplateColumns: `repeat(${fractions.length}, 1fr)` }"
    >
      <button
        v-for="[key, word] in fractions"
        :key="key"
        type="button"
        class="key fraction"
        :aria-label="$t('add {word}', { word })"
        @click="emit('press', key)"
      >
        {{ word }}
      </button>
    </div>
    <div class="figures">
      <button
        v-for="k in ['1', '2', '3', '4', '5', '6', '7', '8', '9', '.', '0']"
        :key="k"
        type="button"
        class="key"
        @click="emit('press', k)"
      >
        {{ k }}
      </button>
      <button type="button" class="key" :aria-label="$t('take back')" @click="emit('press', 'back')">
        ⌫
      </button>
    </div>
  </div>
</template>

<style scoped>
.pad {
  display: flex;
  flex-direction: column;
  gap: 6px;
}
.figures {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
}
.fractions {
  display: grid;
  gap: 6px;
}
.key {
  min-height: 54px;
  border: 2px solid var(--ink);
  border-radius: var(--edge);
  background: var(--paper);
  font-size: 1.5rem;
  font-weight: 650;
  touch-action: manipulation;
}
.key:active {
  background: var(--chalk-wash);
}
.fraction {
  background: var(--tape);
}
</style>

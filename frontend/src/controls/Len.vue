<script setup lang="ts">
/** A length in the project's notation, the unit once. */
import { computed } from "vue";
import { showAbout, unitWord, written, type System } from "../measure";
import Fig from "./Fig.vue";

const props = defineProps<{
  ticks: number;
  system: System;
  bare?: boolean;
  about?: boolean;
  nearest?: boolean;
}>();
const text = computed(() =>
  props.about || props.nearest
    ? showAbout(props.ticks, props.system, props.nearest)
    : written(props.ticks, props.system),
);
const unit = computed(() =>
  props.bare || props.system === "ft-in" ? "" : "\u2009" + unitWord(props.system),
);
</script>

<template>
  <span class="len"
    ><Fig :text="text" /><span v-if="unit" class="unit">{{ unit }}</span></span
  >
</template>

<style scoped>
.len {
  white-space: nowrap;
}
.unit {
  font-size: 0.72em;
  font-weight: 500;
}
</style>

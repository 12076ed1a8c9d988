<script setup lang="ts">
/** The figures of a step: what to set, how it is shared over passes. */
import type { Step } from "../../api/client";
import Len from "../../controls/Len.vue";
import type { System } from "../../measure";

defineProps<{ step: Step; system: System; large?: boolean }>();
</script>

<template>
  <div class="figures" :class="{ large }">
    <div v-if="step.setting">
      <span class="figure"><Len :ticks="step.setting" :system="system" /></span>
      <span class="label">{{
        step.dimension === "straight"
          ? $t("depth of cut")
          : step.machine === "table saw"
            ? $t("fence")
            : step.machine === "crosscut saw"
              ? $t("from the datum end or stop")
              : $t("setting")
      }}</span>
    </div>
    <div v-if="step.passes.length">
      <span class="figure">{{ step.passes.length }}</span>
      <span class="label"
        >{{ $t("pass of | passes of", step.passes.length) }}
        <Len
          v-if="new Set(step.passes).size === 1"
          :ticks="step.passes[0]!"
          :system="system"
          nearest /><template v-else
          ><template v-for="(p, i) in step.passes" :key="i"
            >{{ i ? ", " : "" }}<Len :ticks="p" :system="system" bare nearest /></template></template
      ></span>
    </div>
    <div v-if="step.dimension === 'thickness' && step.stock_in !== step.stock_out">
      <span class="figure"
        ><Len :ticks="step.stock_in" :system="system" bare nearest /> →
        <Len :ticks="step.stock_out" :system="system" /></span
      ><span class="label">{{ $t("thickness, before and after") }}</span>
    </div>
  </div>
</template>

<style scoped>
.large .figure {
  font-size: clamp(2.4rem, 6vw, 4.6rem);
}
.large .label {
  font-size: 1.1rem;
}
</style>

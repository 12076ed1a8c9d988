<script setup lang="ts">
/** The ruler all boards lie under: inches with feet marked, or centimetres with half metres. */
import { computed } from "vue";
import { isMetric, type System, TICKS_PER_INCH } from "../measure";

const props = defineProps<{ length: number; scale: number; system: System }>();
const IN = TICKS_PER_INCH;
const MARGIN = 6;

const marks = computed(() => {
  const metric = isMetric(props.system);
  const unit = metric ? 3200 : IN;
  const size = (unit / IN) * props.scale;
  const every = size >= 5 ? 1 : metric ? 10 : 3;
  const named = metric ? (size * 10 > 34 ? 10 : 50) : size * 6 > 34 ? 6 : 12;
  const found: { x: number; tall: number; word: string }[] = [];
  for (let n = 0; n * unit <= props.length; n += every) {
    const big = n % named === 0;
    found.push({
      x: MARGIN + n * size,
      tall: big ? 12 : n % (metric ? 5 : 3) === 0 ? 8 : 5,
      word:
        big && props.length - n * unit > (26 / props.scale) * IN
          ? String(metric ? n * (props.system === "mm" ? 10 : 1) : n)
          : "",
    });
  }
  return found;
});
</script>

<template>
  <svg class="ruler" :width="(length / TICKS_PER_INCH) * scale + 40" height="26" aria-hidden="true">
    <rect
      :x="MARGIN"
      y="0"
      :width="(length / TICKS_PER_INCH) * scale"
      height="25"
      fill="#ffc91a"
      stroke="#e2a900"
    />
    <g v-for="m in marks" :key="m.x">
      <path :d="`M${m.x} 25v${-m.tall}`" stroke="#12171d" stroke-width="1" />
      <text v-if="m.word" :x="m.x + 3" y="11" font-size="10.5" font-weight="640">{{ m.word }}</text>
    </g>
  </svg>
</template>

<style scoped>
.ruler {
  display: block;
}
</style>

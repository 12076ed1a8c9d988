<script setup lang="ts">
/** Chance that an amount of wood covers the list, taken as it comes and picked; the figures stand beside it as text. */
import {
  Chart,
  Filler,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
} from "chart.js";
import { onBeforeUnmount, onMounted, useTemplateRef, watch } from "vue";
import type { System } from "../../../measure";
import { wood } from "../../../wood";
import { perCent } from "../words";
import { t } from "../../../i18n/i18n";

type Curve = readonly (readonly [number, number])[];
const props = defineProps<{ come: Curve; picked: Curve; chance: number; system: System; label: string }>();
Chart.register(LineController, LineElement, PointElement, LinearScale, Tooltip, Filler, Legend);
const canvas = useTemplateRef<HTMLCanvasElement>("canvas");
let chart: Chart<"line", { x: number; y: number }[]> | undefined;

const points = (curve: Curve) => curve.map(([x, y]) => ({ x, y }));
const style = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
function data() {
  const line = (label: string, curve: Curve, colour: string, dash: number[]) => ({
    label,
    data: points(curve),
    borderColor: colour,
    backgroundColor: colour,
    borderDash: dash,
    borderWidth: 3,
    pointRadius: 0,
    pointHitRadius: 12,
  });
  const all = [...props.come, ...props.picked].map(([x]) => x);
  const asked = [Math.min(...all), Math.max(...all)].map((x) => ({ x, y: props.chance }));
  return {
    datasets: [
      line(t("picked from a pile"), props.picked, style("--chalk"), []),
      line(t("taken as it comes"), props.come, style("--ink"), [7, 5]),
      { ...line(t("chance asked for"), [], style("--crayon"), []), data: asked, borderWidth: 1 },
    ],
  };
}
onMounted(() => {
  chart = new Chart(canvas.value!, {
    type: "line",
    data: data(),
    options: {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      font: { family: style("--body") },
      scales: {
        x: { type: "linear", ticks: { callback: (v) => wood(Number(v), props.system), maxTicksLimit: 7 } },
        y: { min: 0, max: 1, ticks: { callback: (v) => perCent(Number(v)), stepSize: 0.25 } },
      },
      plugins: {
        legend: { position: "bottom", labels: { boxHeight: 2 } },
        tooltip: {
          callbacks: {
            title: (items) => (items[0] ? wood(items[0].parsed.x ?? 0, props.system) : ""),
            label: (item) => `${item.dataset.label}: ${perCent(item.parsed.y ?? 0)}`,
          },
        },
      },
    },
  });
});
watch(
  () => [props.come, props.picked, props.chance, props.system],
  () => {
    if (!chart) return;
    chart.data = data();
    chart.update();
  },
);
onBeforeUnmount(() => chart?.destroy());
</script>

<template>
  <div class="chart"><canvas ref="canvas" role="img" :aria-label="label" /></div>
</template>

<style scoped>
.chart {
  height: 15rem;
  min-width: 0;
}
</style>

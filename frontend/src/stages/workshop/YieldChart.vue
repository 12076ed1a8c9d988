<script setup lang="ts">
/** Yield planned beside real, group by group; the figures stand beside it as text. */
import { BarController, BarElement, CategoryScale, Chart, Legend, LinearScale, Tooltip } from "chart.js";
import { onBeforeUnmount, onMounted, useTemplateRef, watch } from "vue";
import { t } from "../../i18n/i18n";

const props = defineProps<{
  groups: readonly { name: string; planned_yield: number | null; real_yield: number | null }[];
}>();
Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip, Legend);
const canvas = useTemplateRef<HTMLCanvasElement>("canvas");
let chart: Chart<"bar", (number | null)[]> | undefined;
const style = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
const data = () => ({
  labels: props.groups.map((g) => g.name),
  datasets: [
    {
      label: "planned",
      data: props.groups.map((g) => g.planned_yield),
      backgroundColor: style("--paper"),
      borderColor: style("--ink"),
      borderWidth: 1.5,
      maxBarThickness: 64,
    },
    {
      label: "real",
      data: props.groups.map((g) => g.real_yield),
      backgroundColor: style("--oak"),
      borderColor: style("--ink"),
      borderWidth: 1.5,
      maxBarThickness: 64,
    },
  ],
});
const perCent = (share: number) => `${Math.round(share * 100)} %`;
onMounted(() => {
  Chart.defaults.font.family = style("--body");
  chart = new Chart(canvas.value!, {
    type: "bar",
    data: data(),
    options: {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      scales: { y: { min: 0, max: 1, ticks: { callback: (v) => perCent(Number(v)), stepSize: 0.25 } } },
      plugins: {
        legend: { position: "bottom" },
        tooltip: { callbacks: { label: (item) => `${item.dataset.label}: ${perCent(item.parsed.y ?? 0)}` } },
      },
    },
  });
});
watch(
  () => props.groups,
  () => {
    if (!chart) return;
    chart.data = data();
    chart.update();
  },
);
onBeforeUnmount(() => chart?.destroy());
const said = () =>
  props.groups
    .filter((g) => g.real_yield !== null)
    .map((g) =>
      t("{name} {real_yield}, planned {planned_yield}", {
        name: g.name,
        real_yield: perCent(g.real_yield!),
        planned_yield: perCent(g.planned_yield!),
      }),
    )
    .join("; ");
</script>

<template>
  <div class="chart">
    <canvas ref="canvas" role="img" :aria-label="$t('Yield: {said}', { said: said() })" />
  </div>
</template>

<style scoped>
.chart {
  height: 15rem;
  min-width: 0;
}
</style>

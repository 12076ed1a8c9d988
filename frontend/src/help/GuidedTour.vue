<script setup lang="ts">
/** The walk through the demo: it goes from stage to stage, and can be left and taken up again. */
import { ElTour, ElTourStep } from "element-plus";
import "element-plus/es/components/tour/style/css";
import "element-plus/es/components/tour-step/style/css";
import { onMounted } from "vue";
import { useRouter } from "vue-router";
import { leave, tour } from "./touring";
import { STOPS } from "./tour";

const router = useRouter();
/** How long a stage may take to be there, in milliseconds. */
const PATIENCE = 4000;

async function there(selector: string): Promise<void> {
  const began = Date.now();
  while (!document.querySelector(selector) && Date.now() - began < PATIENCE)
    await new Promise((later) => requestAnimationFrame(later));
}
/** Go to a stop: first its stage, then what is pointed at. */
async function go(stop: number): Promise<void> {
  const next = STOPS[stop];
  if (!next) return leave();
  await router.push({ name: next.stage, params: { project: tour.project } });
  await there(next.at);
  tour.at = stop;
}
onMounted(() => void go(tour.at < STOPS.length ? tour.at : 0));
</script>

<template>
  <ElTour
    :model-value="true"
    :current="tour.at"
    :z-index="3000"
    @update:current="go"
    @close="leave(tour.at)"
    @finish="leave()"
  >
    <ElTourStep
      v-for="stop in STOPS"
      :key="stop.title"
      :target="stop.at"
      :title="stop.title"
      :description="stop.text"
    />
  </ElTour>
</template>

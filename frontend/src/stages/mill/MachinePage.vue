<script setup lang="ts">
/** At the machine: one step filling the screen, read from two metres, worked with one hand, a pedal or the space bar. */
import { computed, onBeforeUnmount, onMounted, ref, watch } from "vue";
import { useLayout } from "../../api/layout";
import { useMilling } from "../../api/milling";
import { useProject } from "../../api/project";
import BoardDrawing from "../../board/BoardDrawing.vue";
import type { Plan } from "../../board/geometry";
import Fig from "../../controls/Fig.vue";
import { inField } from "../../controls/keys";
import StepFigures from "./StepFigures.vue";

const { pk, project } = useProject();
const { data, error, mark } = useMilling(pk);
const steps = computed(() => data.value?.routes.flatMap((r) => r.steps) ?? []);
const at = ref(-1);
const understood = ref(new Set<string>());
watch(steps, (now) => {
  if (at.value < 0 && now.length) {
    const first = now.findIndex((s) => !s.done);
    at.value = first < 0 ? now.length - 1 : first;
  }
}, { immediate: true });
const step = computed(() => steps.value[at.value]);
const cautions = computed(() => (step.value && !understood.value.has(step.value.machine) ? data.value?.cautions[step.value.machine] : undefined));
const allDone = computed(() => steps.value.length > 0 && steps.value.every((s) => s.done));

/** The board of this step with what is chalked on the piece in hand: "O1.2a/ends" is about the second segment of O1. */
const { data: layout } = useLayout(pk);
const picture = computed(() => {
  const piece = step.value?.key.split("/")[0] ?? "";
  const board = layout.value?.standing?.boards.find((b) => piece === b.id || piece.startsWith(`${b.id}.`));
  const plan = layout.value?.standing?.plan as unknown as Plan | undefined;
  const segments = [...(plan?.boards.find((b) => b.board === board?.id)?.segments ?? [])].sort((a, b) => a.x0 - b.x0);
  if (!board) return null;
  const n = parseInt(piece.slice(board.id.length + 1), 10);
  return {
    board,
    segments: Number.isNaN(n) ? segments : segments.slice(n - 1, n),
    scale: Math.min(12, (width.value - 60) / (board.length / 8128)),
  };
});
const width = ref(window.innerWidth);
const resized = () => (width.value = window.innerWidth);

function forward(): void {
  if (!step.value) return;
  if (cautions.value) {
    understood.value = new Set([...understood.value, step.value.machine]);
    return;
  }
  void mark(step.value.key, true);
  if (at.value < steps.value.length - 1) at.value++;
}
function go(by: number): void {
  at.value = Math.min(Math.max(at.value + by, 0), steps.value.length - 1);
}
function key(event: KeyboardEvent): void {
  if (inField(event)) return;
  if (event.code === "Space" || event.key === "PageDown") {
    event.preventDefault();
    forward();
  } else if (event.key === "ArrowRight") go(1);
  else if (event.key === "ArrowLeft") go(-1);
}
onMounted(() => {
  window.addEventListener("keydown", key);
  window.addEventListener("resize", resized);
});
onBeforeUnmount(() => {
  window.removeEventListener("keydown", key);
  window.removeEventListener("resize", resized);
});
</script>

<template>
  <main class="machine">
    <header>
      <RouterLink class="act" :to="{ name: 'mill', params: { project: pk } }">Back to the list</RouterLink>
      <span class="grow">{{ project?.name }}</span>
      <span v-if="step">{{ at + 1 }} of {{ steps.length }}</span>
    </header>
    <p v-if="error" class="note">{{ error.message }}</p>
    <p v-if="data?.stale" class="note">The project has changed since this plan was made. Lay out again before cutting.</p>
    <template v-if="step">
      <section v-if="cautions" class="caution">
        <h1>{{ step.machine }}</h1>
        <ul><li v-for="c in cautions" :key="c">{{ c }}</li></ul>
      </section>
      <section v-else class="step" aria-live="polite">
        <p class="where">{{ step.machine }}<b v-if="step.done"> · done</b></p>
        <h1><Fig :text="step.do" /></h1>
        <StepFigures :step="step" :system="data!.system" large />
        <BoardDrawing v-if="picture" :board="picture.board" :segments="picture.segments" :parts="layout?.standing?.parts ?? []" :scale="picture.scale" :system="data!.system" />
        <p v-if="step.down" class="say"><b>Down:</b> {{ step.down }}</p>
        <p v-if="step.against" class="say"><b>Fence:</b> {{ step.against }}</p>
        <p v-if="step.obstacle" class="note say"><span><b><Fig :text="step.obstacle" />.</b> Instead: <Fig :text="step.way_round.join('; or ')" />.</span></p>
        <p v-if="step.check" class="say"><b>Check:</b> <Fig :text="step.check" /></p>
        <p class="why soft"><Fig :text="step.why" /></p>
      </section>
      <footer>
        <button class="act side" :disabled="at === 0" aria-label="The step before" @click="go(-1)">←</button>
        <button class="act lead big" @click="forward">{{ cautions ? "Understood" : allDone ? "All done" : "Done" }}</button>
        <button class="act side" :disabled="at >= steps.length - 1" aria-label="The step after" @click="go(1)">→</button>
      </footer>
    </template>
  </main>
</template>

<style scoped>
.machine {
  min-height: 100dvh;
  display: flex;
  flex-direction: column;
  gap: 1rem;
  padding: 0.8rem 1.4rem;
}
header {
  display: flex;
  gap: 1rem;
  align-items: center;
  font-weight: 600;
}
.grow {
  flex: 1;
  min-width: 0;
}
h1,
.say {
  overflow-wrap: anywhere;
}
.step,
.caution {
  flex: 1;
  display: flex;
  flex-direction: column;
  gap: 1.1rem;
  justify-content: center;
}
.where {
  font-size: 1.5rem;
  font-weight: 620;
}
h1 {
  font-size: clamp(2rem, 4.6vw, 3.6rem);
}
.caution {
  border-left: 14px solid var(--tape);
  padding-left: 1.6rem;
}
.caution li {
  font-size: clamp(1.2rem, 2.2vw, 1.7rem);
  margin-bottom: 0.7rem;
}
.say {
  font-size: clamp(1.15rem, 2vw, 1.6rem);
}
.why {
  font-size: 1.05rem;
  max-width: 60rem;
}
footer {
  position: sticky;
  bottom: 0;
  display: grid;
  grid-template-columns: 5rem 1fr 5rem;
  gap: 0.8rem;
  padding: 0.6rem 0;
  background: var(--plaster);
}
@media (max-width: 640px) {
  .machine {
    padding: 0.6rem 0.8rem;
  }
  .caution {
    padding-left: 0.9rem;
  }
  footer {
    grid-template-columns: 4rem minmax(0, 1fr) 4rem;
  }
}
.big {
  min-height: 88px;
  font-size: 2rem;
}
.side {
  font-size: 1.8rem;
}
</style>

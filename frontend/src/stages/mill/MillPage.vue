<script setup lang="ts">
/** The steps, board by board, each with its figures and its reason. */
import { computed, ref } from "vue";
import { useMilling } from "../../api/milling";
import { useProject } from "../../api/project";
import Fig from "../../controls/Fig.vue";
import StepFigures from "./StepFigures.vue";

const { pk, project } = useProject();
const { data, error, mark } = useMilling(pk);
const chosen = ref("");
const route = computed(() => data.value?.routes.find((r) => r.board === chosen.value) ?? data.value?.routes[0]);
const done = computed(() => {
  const steps = data.value?.routes.flatMap((r) => r.steps) ?? [];
  return { of: steps.length, done: steps.filter((s) => s.done).length };
});
const machines = computed(() => [...new Set(route.value?.steps.map((s) => s.machine))]);
const next = computed(() => route.value?.steps.find((s) => !s.done)?.key);
</script>

<template>
  <section v-if="project" class="stage">
    <div class="stage-head">
      <h1>Mill</h1>
      <div v-if="data" class="figures grow"><div><span class="figure">{{ done.done }} <small>of {{ done.of }}</small></span><span class="label">steps done</span></div></div>
      <RouterLink v-if="data" class="act lead" :to="{ name: 'machine', params: { project: pk } }">To the machine</RouterLink>
    </div>
    <p v-if="error" class="first">{{ error.message }}. <RouterLink :to="{ name: 'layout', params: { project: pk } }">Go to Lay out.</RouterLink></p>
    <p v-if="data?.stale" class="note">Parts, boards or the shop have changed since this plan was made: these steps are for the plan as it was.</p>
    <nav v-if="data" class="pick" aria-label="Boards">
      <button v-for="r in data.routes" :key="r.board" class="act" :class="{ on: r.board === route?.board }" :aria-pressed="r.board === route?.board" @click="chosen = r.board">
        {{ r.board }} <span class="soft">{{ r.steps.filter((s) => s.done).length }}/{{ r.steps.length }}</span>
      </button>
    </nav>
    <div v-if="data && route" class="two">
      <ol class="steps">
        <li v-for="s in route.steps" :key="s.key" :class="{ done: s.done, next: s.key === next }">
          <label class="tick"><input type="checkbox" :checked="s.done" :aria-label="`Done: ${s.do}`" @change="mark(s.key, ($event.target as HTMLInputElement).checked)" /></label>
          <div class="body">
            <p class="machine">{{ s.machine }}</p>
            <h2><Fig :text="s.do" /></h2>
            <template v-if="!s.done">
              <StepFigures :step="s" :system="data.system" />
              <p v-if="s.down || s.against"><template v-if="s.down"><b>Down:</b> {{ s.down }}. </template><template v-if="s.against"><b>Against the fence:</b> {{ s.against }}.</template></p>
              <div v-if="s.obstacle" class="note"><span><b><Fig :text="s.obstacle" />.</b> Instead: <Fig :text="s.way_round.join('; or ')" />.</span></div>
              <p v-if="s.check"><b>Check:</b> <Fig :text="s.check" /></p>
              <p class="soft"><b>Why:</b> <Fig :text="s.why" /></p>
              <p v-if="s.pieces.length" class="soft pieces">{{ s.pieces.join(", ") }}</p>
            </template>
          </div>
        </li>
      </ol>
      <aside class="cautions">
        <h3>Before you switch on</h3>
        <details v-for="m in machines" :key="m" open>
          <summary>{{ m }}</summary>
          <ul><li v-for="c in data.cautions[m]" :key="c">{{ c }}</li></ul>
        </details>
      </aside>
    </div>
  </section>
</template>

<style scoped>
.first {
  font-size: 1.15rem;
}
.figure small {
  font-size: 1rem;
  font-weight: 500;
}
.pick {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin-bottom: 1.2rem;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 19rem;
  gap: 2rem;
}
.steps {
  list-style: none;
  margin: 0;
  padding: 0;
}
.steps > li {
  display: flex;
  gap: 0.8rem;
  padding: 0.9rem 0;
  border-top: 2px solid var(--ink);
}
.steps > li.done {
  color: var(--ink-soft);
  padding-block: 0.3rem;
}
.steps > li.done h2 {
  font-size: 1rem;
  text-decoration: line-through;
}
.steps > li.next {
  box-shadow: inset 8px 0 0 var(--crayon);
  padding-left: 1.2rem;
}
.tick {
  display: grid;
  place-items: center;
  width: 44px;
  height: 44px;
  flex: 0 0 auto;
}
.tick input {
  width: 26px;
  height: 26px;
  accent-color: var(--chalk);
}
.body {
  display: flex;
  flex-direction: column;
  gap: 0.55rem;
  min-width: 0;
}
.machine {
  font-weight: 620;
  color: var(--ink-soft);
}
.pieces {
  font-size: 0.9rem;
}
.cautions {
  align-self: start;
  border-left: 6px solid var(--tape);
  padding-left: 1rem;
  font-size: 0.92rem;
}
.cautions summary {
  font-weight: 680;
  min-height: 36px;
  cursor: pointer;
}
.cautions ul {
  margin: 0 0 0.8rem;
  padding-left: 1.1rem;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

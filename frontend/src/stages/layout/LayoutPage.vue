<script setup lang="ts">
/** All boards under one ruler, the parts chalked on them, what it costs and how near the best it is. */
import { useQueryClient } from "@tanstack/vue-query";
import { computed, onBeforeUnmount, onMounted, ref, watch } from "vue";
import { api, send } from "../../api/client";
import { useLayout } from "../../api/layout";
import { useProject } from "../../api/project";
import BoardDrawing from "../../board/BoardDrawing.vue";
import BoardRuler from "../../board/BoardRuler.vue";
import type { Plan, Segment } from "../../board/geometry";
import Fig from "../../controls/Fig.vue";
import { inField } from "../../controls/keys";
import { told } from "../../controls/told";
import Len from "../../controls/Len.vue";
import { useWidth } from "../../controls/width";
import ShopSheet from "../../controls/ShopSheet.vue";

const { pk, project } = useProject();
const client = useQueryClient();
const { data } = useLayout(pk);
const seconds = ref(10);
const zoom = ref(1);
const face = ref<"A" | "B">("A");
const chosen = ref("");
const shop = ref(false);
const frame = ref<HTMLElement>();
const width = useWidth(frame, 1100);

const latest = computed(() => data.value?.latest ?? null);
const standing = computed(() => data.value?.standing ?? null);
const going = computed(() => latest.value?.state === "waiting" || latest.value?.state === "searching");
const plan = computed(() => standing.value?.plan as unknown as Plan | undefined);
const boards = computed(() => (standing.value && !standing.value.stale ? standing.value.boards : (project.value?.boards ?? [])));
const parts = computed(() => standing.value?.parts ?? []);
const cutBoards = computed(() => {
  const cut = new Map<string, Segment[]>(plan.value?.boards.map((b) => [b.board, b.segments]) ?? []);
  const all = standing.value ? standing.value.boards : boards.value;
  return all.map((board) => ({ board, segments: cut.get(board.id) ?? [] })).sort((a, b) => Number(!a.segments.length) - Number(!b.segments.length));
});
const longest = computed(() => Math.max(1, ...cutBoards.value.map((b) => b.board.length)));
const scale = computed(() => ((width.value - 24) / (longest.value / 8128)) * zoom.value);
const figures = computed(() => {
  const now = going.value ? latest.value : standing.value;
  const total = (now?.parts ?? []).reduce((sum, p) => sum + p.quantity, 0);
  return { total, placed: now?.unplaced === null || now?.unplaced === undefined ? null : total - now.unplaced, cost: now?.cost ?? null, bound: now?.lower_bound ?? null };
});
const gap = computed(() => {
  const { cost, bound } = figures.value;
  if (cost === null || bound === null || figures.value.placed !== figures.value.total) return "";
  if (cost <= bound + 0.005) return "proved the cheapest there is";
  if (!bound) return "no bound: not proved";
  return `at most ${((cost / bound - 1) * 100).toFixed(0)} % over the cheapest: not proved`;
});

async function layOut(): Promise<void> {
  await told(async () => {
    if (going.value && latest.value) await api.POST("/api/layouts/{layout}/stop", { params: { path: { layout: latest.value.pk } } });
    else await api.POST("/api/projects/{project}/layout", { params: { path: { project: pk.value } }, body: { seconds: seconds.value } });
    await client.invalidateQueries({ queryKey: ["layout", pk.value] });
  });
}
watch(() => latest.value?.state, (now, before) => {
  if (before && now && ["done", "stopped"].includes(now)) for (const key of ["milling", "account"]) void client.invalidateQueries({ queryKey: [key, pk.value] });
});
async function bringPlan(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = "";
  if (file) await told(async () => {
    await send(`/api/projects/${pk.value}/plan`, file);
    await client.invalidateQueries({ queryKey: ["layout", pk.value] });
  });
}
function key(event: KeyboardEvent): void {
  if (inField(event) || event.ctrlKey || event.metaKey) return;
  if (event.key.toLowerCase() === "l") void layOut();
  if (event.key.toLowerCase() === "f") face.value = face.value === "A" ? "B" : "A";
  if (event.key === "+" || event.key === "=") zoom.value = Math.min(6, zoom.value * 1.25);
  if (event.key === "-") zoom.value = Math.max(1, zoom.value / 1.25);
  if (event.key === "Escape") chosen.value = "";
}
onMounted(() => window.addEventListener("keydown", key));
onBeforeUnmount(() => window.removeEventListener("keydown", key));
const chosenPart = computed(() => parts.value.find((p) => p.id === chosen.value));
</script>

<template>
  <section v-if="project" class="stage">
    <div class="stage-head">
      <h1>Lay out</h1>
      <div class="figures grow">
        <div v-if="figures.placed !== null"><span class="figure">{{ figures.placed }} <small>of {{ figures.total }}</small></span><span class="label">parts placed</span></div>
        <div v-if="figures.cost !== null"><span class="figure">{{ figures.cost.toFixed(2) }}</span><span class="label">boards cut cost</span></div>
        <div v-if="figures.bound !== null"><span class="figure">{{ figures.bound.toFixed(2) }}</span><span class="label">nothing can cost less; {{ gap }}</span></div>
      </div>
      <label class="field"><span>Search for</span>
        <select v-model.number="seconds" class="line-input"><option :value="5">5 s</option><option :value="10">10 s</option><option :value="30">30 s</option><option :value="120">2 min</option></select>
      </label>
      <button class="act lead" :disabled="!project.parts.length || !project.boards.length" @click="layOut">{{ going ? "Stop here" : standing ? "Lay out again" : "Lay out" }}</button>
    </div>
    <div v-if="going && latest" class="progress" role="status">
      <span class="run" :style="{ width: `${Math.min(100, (latest.spent / latest.seconds) * 100)}%` }" />
      <span class="says">{{ latest.state === "waiting" ? "waiting for the worker" : `${latest.spent.toFixed(1)} of ${latest.seconds} s, ${latest.rounds} arrangements tried` }}</span>
    </div>
    <p v-if="!project.parts.length || !project.boards.length" class="first">
      To lay out there must be
      <RouterLink v-if="!project.parts.length" :to="{ name: 'list', params: { project: pk } }">parts on the list</RouterLink>
      <template v-if="!project.parts.length && !project.boards.length"> and </template>
      <RouterLink v-if="!project.boards.length" :to="{ name: 'boards', params: { project: pk } }">boards in the rack</RouterLink>.
    </p>
    <p v-if="latest?.state === 'failed'" class="note">{{ latest.trouble }}</p>
    <p v-if="standing?.stale && !going" class="note">Parts, boards or the shop have changed since this plan was made. Lay out again before cutting.</p>
    <p v-if="!going && standing && !standing.stale && latest && latest.pk !== standing.pk && ['done', 'stopped'].includes(latest.state)" class="soft">The last search found nothing better: this plan stands.</p>
    <div class="tools">
      <button class="act" :class="{ on: face === 'A' }" @click="face = 'A'">Face A</button>
      <button class="act" :class="{ on: face === 'B' }" @click="face = 'B'">Face B</button>
      <button class="act" aria-label="Smaller" @click="zoom = Math.max(1, zoom / 1.25)">−</button>
      <button class="act" aria-label="Larger" @click="zoom = Math.min(6, zoom * 1.25)">+</button>
      <span v-if="chosenPart" class="picked"><b>{{ chosenPart.id }}</b> {{ chosenPart.name }}, {{ chosenPart.quantity }} of <Len :ticks="chosenPart.length" :system="project.system" bare /> × <Len :ticks="chosenPart.width" :system="project.system" bare /> × <Len :ticks="chosenPart.thickness" :system="project.system" /></span>
      <span class="grow" />
      <button class="act quiet" @click="shop = true">The shop</button>
      <template v-if="standing">
        <a class="act quiet" :href="`/api/layouts/${standing.pk}/plan.json`">Plan file</a>
        <a class="act quiet" :href="`/api/layouts/${standing.pk}/plan.svg`">SVG</a>
      </template>
      <label class="act quiet">Bring a plan<input class="sr" type="file" accept=".json" @change="bringPlan" /></label>
    </div>
    <div v-if="plan?.unplaced.length" class="left-out">
      <h3>Left out</h3>
      <p v-for="u in plan.unplaced" :key="u.part + u.n" class="note"><span><b>{{ u.part }}{{ u.n }}</b> {{ parts.find((p) => p.id === u.part)?.name }}: <Fig :text="u.why" /></span></p>
    </div>
    <div ref="frame" class="bench">
      <div class="under">
        <BoardRuler :length="longest" :scale="scale" :system="project.system" class="ruler" />
        <div v-for="entry in cutBoards" :key="entry.board.id" class="lane">
          <div class="name">
            <RouterLink :to="{ name: 'boards', params: { project: pk, board: entry.board.id } }"><b>{{ entry.board.id }}</b></RouterLink>
            <span class="soft">{{ entry.board.species }}, <Len :ticks="entry.board.length" :system="project.system" />{{ entry.board.price ? `, ${entry.board.price.toFixed(2)}` : ", owned" }}{{ plan && !entry.segments.length ? ", stays in the rack" : "" }}</span>
          </div>
          <BoardDrawing :board="entry.board" :scale="scale" :system="project.system" :face="face" :segments="entry.segments" :parts="parts" :chosen="chosen" :faded="!!plan && !entry.segments.length" choosable @part="chosen = chosen === $event ? '' : $event" @place="chosen = ''" />
        </div>
      </div>
    </div>
    <ShopSheet v-if="shop" @close="shop = false" />
  </section>
</template>

<style scoped>
.first {
  font-size: 1.15rem;
  margin-bottom: 1rem;
}
.figure small {
  font-size: 1rem;
  font-weight: 500;
}
.progress {
  position: relative;
  height: 34px;
  background: var(--plaster-deep);
  margin-bottom: 0.8rem;
  overflow: hidden;
}
.run {
  position: absolute;
  inset: 0 auto 0 0;
  background-color: var(--tape);
  background-image: repeating-linear-gradient(90deg, var(--ink) 0 1px, transparent 1px 14px);
  background-size: 100% 7px;
  background-repeat: no-repeat;
  border-right: 6px solid var(--steel);
  transition: width 0.4s linear;
}
.says {
  position: absolute;
  left: 0.8rem;
  bottom: 3px;
  font-weight: 620;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
  margin-bottom: 0.8rem;
}
.tools .grow {
  flex: 1;
}
.picked {
  padding: 0.3rem 0.8rem;
  border-left: 6px solid var(--chalk);
}
.left-out {
  display: flex;
  flex-direction: column;
  gap: 0.35rem;
  margin-bottom: 1rem;
}
.bench {
  overflow-x: auto;
  min-width: 0;
}
.under {
  width: max-content;
  min-width: 100%;
}
.ruler {
  position: sticky;
  top: 0;
}
.lane {
  padding-top: 0.55rem;
}
.name {
  display: flex;
  gap: 0.7rem;
  padding-left: 6px;
  font-size: 0.9rem;
  position: sticky;
  left: 0;
  width: max-content;
}
</style>

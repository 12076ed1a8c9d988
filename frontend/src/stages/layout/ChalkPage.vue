<script setup lang="ts">
/** At the bench: one board, the marks to draw on it in order, large, each ticked off when it is drawn. */
import { useEventListener } from "@vueuse/core";
import { ElButton } from "element-plus";
import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { computed, ref } from "vue";
import { api } from "../../api/client";
import { who } from "../../api/who";
import { useLayout } from "../../api/layout";
import { useProject } from "../../api/project";
import BoardDrawing from "../../board/BoardDrawing.vue";
import BoardRuler from "../../board/BoardRuler.vue";
import { edges } from "../../board/geometry";
import Fig from "../../controls/Fig.vue";
import { inField } from "../../controls/keys";
import Len from "../../controls/Len.vue";
import { withErrorToast } from "../../controls/withErrorToast";
import { useWidth } from "../../controls/width";
import { TICKS_PER_INCH } from "../../measure";
import UnplacedNote from "../../controls/UnplacedNote.vue";
import { t } from "../../i18n/i18n";

const { pk, project } = useProject();
const client = useQueryClient();
const { data: layouts } = useLayout(pk);
const standing = computed(() => layouts.value?.standing ?? null);
const { data } = useQuery({
  queryKey: computed(() => ["chalk", standing.value?.pk]),
  queryFn: async () =>
    (await api.GET("/api/layouts/{layout}/chalk", { params: { path: { layout: standing.value!.pk } } }))
      .data!,
  enabled: computed(() => !!standing.value?.plan),
});
const at = ref(0);
const frame = ref<HTMLElement>();
const width = useWidth(frame, 1100);
const boards = computed(() => data.value?.boards ?? []);
const current = computed(() => boards.value[Math.min(at.value, boards.value.length - 1)]);
const board = computed(() => standing.value?.boards.find((b) => b.id === current.value?.board));
const segments = computed(
  () => standing.value?.plan?.boards.find((b) => b.board === current.value?.board)?.segments ?? [],
);
/** Boards that are being cut: their end is not there any more, and nothing is measured from it. */
const begun = computed(() => standing.value?.fixings.begun ?? []);
const isBegun = computed(() => begun.value.includes(current.value?.board ?? ""));
const next = computed(() => (isBegun.value ? undefined : current.value?.marks.find((m) => !m.done)));
const scale = computed(
  () => (width.value - 12) / Math.max(1, (board.value?.length ?? TICKS_PER_INCH) / TICKS_PER_INCH),
);

type Mark = (typeof boards.value)[number]["marks"][number];
/** A crosscut over the whole width, a little past both edges. */
function crosscut(mark: Mark, x: (t: number) => number, y: (t: number) => number): string {
  const [low, high] = edges(board.value!, mark.x0);
  return `M${x(mark.x0)} ${y(low) + 14}L${x(mark.x0)} ${y(high) - 14}`;
}
/** A line along the board, its ends measured from the datum edge where they lie. */
function ripped(mark: Mark, x: (t: number) => number, y: (t: number) => number): string {
  const ends = [
    [mark.x0, mark.y0],
    [mark.x1, mark.y1],
  ] as const;
  return ends.map(([at, up], i) => `${"ML"[i]}${x(at)} ${y(edges(board.value!, at)[0] + up)}`).join("");
}
function told({ board, marks }: (typeof boards.value)[number]): string {
  const drawn = marks.filter((m) => m.done).length;
  if (begun.value.includes(board)) return t("being cut");
  return drawn === marks.length ? "drawn" : `${drawn}/${marks.length}`;
}

async function tick(key: string, done: boolean): Promise<void> {
  await withErrorToast(async () => {
    await api.PUT("/api/layouts/{layout}/steps", {
      params: { path: { layout: data.value!.layout } },
      body: { key, done, reading: null, minutes: null, passes: null, who: who.value },
    });
    await client.invalidateQueries({ queryKey: ["chalk", standing.value?.pk] });
  });
}
function go(step: number): void {
  at.value = Math.max(0, Math.min(boards.value.length - 1, at.value + step));
}
function key(event: KeyboardEvent): void {
  if (inField(event)) return;
  if (event.key === "ArrowRight") go(1);
  else if (event.key === "ArrowLeft") go(-1);
  else if (event.key === " " && next.value) void tick(next.value.key, true);
  else return;
  event.preventDefault();
}
useEventListener("keydown", key);
</script>

<template>
  <main v-if="project" class="chalk">
    <header>
      <RouterLink class="act" :to="{ name: 'layout', params: { project: pk } }">{{
        $t("← Lay out")
      }}</RouterLink>
      <nav :aria-label="$t('Boards')">
        <ElButton
          v-for="(b, i) in boards"
          :key="b.board"
          class="act"
          :class="{ on: b === current }"
          @click="at = i"
        >
          {{ b.board }}
          <small>{{ told(b) }}</small>
        </ElButton>
      </nav>
      <a v-if="standing?.plan" class="act" :href="`/api/layouts/${standing.pk}/chalk.pdf`" target="_blank">{{
        $t("On paper")
      }}</a>
    </header>
    <p v-if="standing && !standing.plan" class="note">
      {{ $t("There is no plan yet: lay the parts out first.") }}
    </p>
    <UnplacedNote />
    <p v-if="standing?.stale" class="note">
      {{
        $t("Parts, boards or the shop have changed since this plan was made. Lay out again before chalking.")
      }}
    </p>
    <div ref="frame" class="frame">
      <template v-if="board && current">
        <div class="where">
          <h1>{{ $t("Chalk {id}", { id: board.id }) }}</h1>
          <p v-if="isBegun">
            {{ $t("It is being cut: the marks stand as they were, and nothing more is drawn.") }}
          </p>
          <p v-else>
            {{
              $t(
                "Face A up, the datum end at your left, the datum edge towards you. All measures from there.",
              )
            }}
          </p>
        </div>
        <BoardRuler :length="board.length" :scale="scale" :system="project.system" />
        <BoardDrawing
          :board="board"
          :scale="scale"
          :system="project.system"
          :segments="segments"
          :parts="standing!.parts"
        >
          <template #default="{ x, y }">
            <g v-if="next" class="now">
              <path v-if="next.kind === 'crosscut'" :d="crosscut(next, x, y)" />
              <path v-else-if="next.kind === 'line'" :d="ripped(next, x, y)" />
              <path v-else :d="`M${x(next.x0)} ${y(edges(board, next.x0)[0]) + 10}H${x(next.x1)}`" />
            </g>
          </template>
        </BoardDrawing>
        <ol>
          <li v-for="m in current.marks" :key="m.key" :class="[m.kind, { done: m.done, next: m === next }]">
            <label
              ><input
                type="checkbox"
                :checked="m.done"
                :disabled="isBegun"
                @change="tick(m.key, !m.done)"
              /><span
                ><Fig :text="m.words" /><em v-if="m.saw">{{ $t(", saw {saw}", { saw: m.saw }) }}</em></span
              ></label
            >
          </li>
        </ol>
        <p class="keep">
          <template v-if="current.offcuts.length"
            >{{ $t("Keep:") }}
            <span v-for="(o, i) in current.offcuts" :key="i"
              >{{ i ? ", " : "" }}<Len :ticks="o.length" :system="project.system" about /> ×
              <Len :ticks="o.width" :system="project.system" about /></span></template
          ><template v-else>{{ $t("Nothing of it is worth keeping.") }}</template>
        </p>
        <p class="soft">{{ $t("Space ticks the next mark, ← → go from board to board.") }}</p>
      </template>
    </div>
  </main>
</template>

<style scoped>
.chalk {
  overflow-x: clip;
  padding: 0.8rem 1.2rem 3rem;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
  margin-bottom: 0.8rem;
}
nav {
  flex: 1;
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
@media (max-width: 640px) {
  nav {
    order: 3;
    flex: 1 0 100%;
    flex-wrap: nowrap;
    overflow-x: auto;
    padding: 4px 0;
  }
  nav > * {
    flex: none;
  }
  header {
    justify-content: space-between;
  }
}
nav small {
  font-weight: 500;
}
.where {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0.2rem 1rem;
  margin-bottom: 0.6rem;
  font-size: 1.1rem;
}
.now path {
  stroke: var(--crayon);
  stroke-width: 6;
  fill: none;
}
ol {
  list-style: none;
  margin: 1rem 0 0.6rem;
  padding: 0;
  columns: 2 30rem;
  column-gap: 2rem;
}
li {
  break-inside: avoid;
}
li label {
  display: flex;
  align-items: center;
  gap: 0.9rem;
  min-height: 48px;
  padding: 0.2rem 0.5rem;
  font-size: 1.25rem;
  cursor: pointer;
}
li input {
  flex: none;
  width: 26px;
  height: 26px;
}
li.crosscut label {
  font-weight: 700;
}
li.line label,
li.piece label {
  padding-left: 2rem;
}
li.next label {
  box-shadow: inset 8px 0 0 var(--crayon);
  background: var(--paper);
}
li.done span {
  color: var(--ink-soft);
  text-decoration: line-through;
}
em {
  font-style: normal;
  font-weight: 500;
}
.keep {
  font-size: 1.15rem;
  font-weight: 640;
}
</style>

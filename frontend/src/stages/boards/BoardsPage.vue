<script setup lang="ts">
/** The boards on hand: the rack beside one board under the eye. */
import { useEventListener } from "@vueuse/core";
import { useMutation, useQueryClient } from "@tanstack/vue-query";
import { ElButton } from "element-plus";
import { computed, ref } from "vue";
import { useRoute, useRouter } from "vue-router";
import { api } from "../../api/client";
import { useProject } from "../../api/project";
import BoardDrawing from "../../board/BoardDrawing.vue";
import WarpViews from "../../board/WarpViews.vue";
import { inField } from "../../controls/keys";
import Len from "../../controls/Len.vue";
import { withErrorToast } from "../../controls/withErrorToast";
import { useWidth } from "../../controls/width";
import BoardEditor from "./BoardEditor.vue";
import BoardSurvey from "./BoardSurvey.vue";
import { useLook } from "./look";
import NewBoard from "./NewBoard.vue";
import Fig from "../../controls/Fig.vue";
import { TICKS_PER_INCH } from "../../measure";
import { weight, woodFigure, woodPrice, woodUnit } from "../../wood";
import { t } from "../../i18n/i18n";

const route = useRoute();
const router = useRouter();
const { pk, project, edit } = useProject();
const adding = ref(false);
const frame = ref<HTMLElement>();
const width = useWidth(frame, 700);

const board = computed(
  () => project.value?.boards.find((b) => b.id === route.params.board) ?? project.value?.boards[0],
);
const { data: look, error } = useLook(pk, board);
const shownCut = ref(0);
const cut = computed(() => look.value?.cuts[shownCut.value]);
const rackScale = computed(
  () => 150 / Math.max(1, ...(project.value?.boards.map((b) => b.length / TICKS_PER_INCH) ?? [1])),
);

function open(id: string): void {
  void router.replace({ name: "boards", params: { project: pk.value, board: id } });
}
const client = useQueryClient();
/** Boards as a supplier has them, until there are some. */
const toTry = useMutation({
  mutationFn: () =>
    api.POST("/api/projects/{project}/boards-to-try", { params: { path: { project: pk.value } } }),
  onSuccess: async () => {
    for (const key of ["project", "layout", "needs"])
      await client.invalidateQueries({ queryKey: [key, pk.value] });
  },
});
function tryBoards(): Promise<void> {
  return withErrorToast(async () => {
    await toTry.mutateAsync();
  });
}
function remove(): void {
  if (!board.value) return;
  void edit({ label: t("removal of {name}", { name: board.value.id }), remove_boards: [board.value.id] });
  void router.replace({ name: "boards", params: { project: pk.value } });
}
function key(event: KeyboardEvent): void {
  if (event.key.toLowerCase() === "n" && !inField(event) && !event.ctrlKey && !event.metaKey) {
    event.preventDefault();
    adding.value = true;
  }
}
useEventListener("keydown", key);
</script>

<template>
  <section v-if="project" class="stage">
    <div class="stage-head">
      <h1 class="grow">{{ $t("Boards") }}</h1>
      <RouterLink class="act" :to="{ name: 'survey', params: { project: pk } }">{{
        $t("Record one in the yard")
      }}</RouterLink>
      <ElButton class="act" :class="{ lead: !project.boards.length }" @click="adding = true">
        {{ $t("Add a board") }}
      </ElButton>
      <RouterLink
        v-if="project.boards.length && project.parts.length"
        class="act lead"
        :to="{ name: 'layout', params: { project: pk } }"
        >{{ $t("Next: lay out") }}</RouterLink
      >
    </div>
    <div v-if="!project.boards.length" class="first">
      <p>
        {{
          $t(
            "The rack is empty. Measure the first board: its length, its width at both ends, its thickness, and how it is bent.",
          )
        }}
      </p>
      <p>
        {{
          $t(
            "Nothing bought yet? Buy says what to ask for; a board may lie in the stock room; and the list can be laid out on boards as a supplier has them, to see how it goes.",
          )
        }}
      </p>
      <p class="ways">
        <ElButton
          v-if="project.parts.length"
          class="act"
          :loading="toTry.isPending.value"
          @click="tryBoards"
          >{{ $t("Try it with a supplier's boards") }}</ElButton
        >
        <RouterLink class="act" :to="{ name: 'buy', params: { project: pk } }">{{
          $t("What to ask for")
        }}</RouterLink>
        <RouterLink class="act" :to="{ name: 'stock' }">{{ $t("To the stock room") }}</RouterLink>
      </p>
    </div>
    <div v-else class="two">
      <nav class="rack" :aria-label="$t('Boards in the rack')">
        <button
          v-for="b in project.boards"
          :key="b.id"
          :class="{ on: b.id === board?.id }"
          :aria-pressed="b.id === board?.id"
          @click="open(b.id)"
        >
          <span
            ><b>{{ b.id }}</b> <span class="soft">{{ b.species }}</span></span
          >
          <span class="soft long"><Len :ticks="b.length" :system="project.system" /></span>
          <BoardDrawing class="thumb" :board="b" :scale="rackScale" :system="project.system" />
        </button>
      </nav>
      <div ref="frame" class="one">
        <template v-if="board">
          <BoardEditor :board="board" :width="width" :look="look" @renamed="open">
            <p v-if="error" class="note">{{ error.message }}</p>
            <div v-if="look" class="yields">
              <button
                v-for="(c, i) in look.cuts"
                :key="c.name"
                class="yield"
                :class="{ on: i === shownCut }"
                :aria-pressed="i === shownCut"
                @click="shownCut = i"
              >
                <span class="figure"><Len :ticks="c.flat" :system="project.system" about /></span>
                <span class="label">{{ $t("flat, {name}", { name: c.name }) }}</span>
              </button>
              <div class="yield plain">
                <span class="figure">{{ woodFigure(look.board_feet, project.system, 2) }}</span><span
                  class="label"
                  >{{
                    $t("{system} by the tape, {quarter}", {
                      system: woodUnit(project.system),
                      quarter: look.quarter,
                    })
                  }}</span
                >
              </div>
              <div class="yield plain">
                <span class="figure">{{ woodFigure(look.ticket_feet, project.system, 2) }}</span><span
                  class="label"
                  >{{ $t("{system} by the ticket's rule", { system: woodUnit(project.system) })
                  }}<template v-if="board.price"
                    >, {{ woodPrice(board.price / look.ticket_feet, project.system) }}</template
                  ></span
                >
              </div>
              <div v-if="look.weight_kg" class="yield plain">
                <span class="figure">{{ weight(look.weight_kg, project.system, 1) }}</span><span
                  class="label"
                  >{{
                    $t("{alone}, at 12 %", {
                      alone: look.alone ? $t("one can lift it") : $t("two to lift it"),
                    })
                  }}</span
                >
              </div>
            </div>
            <p v-if="look" class="advice"><Fig :text="look.advice" /></p>
            <p v-if="look?.causes" class="causes"><Fig :text="look.causes" /></p>
            <BoardSurvey :board="board" :width="width" :look="look" />
            <WarpViews
              v-if="look && cut"
              :board="board"
              :system="project.system"
              :pieces="cut.pieces"
              :width="Math.min(width, 900)"
            />
          </BoardEditor>
          <p class="end">
            <ElButton class="act quiet" @click="remove">{{
              $t("Take {id} out of the rack", { id: board.id })
            }}</ElButton>
          </p>
        </template>
      </div>
    </div>
    <NewBoard v-if="adding" @close="adding = false" @added="open" />
  </section>
</template>

<style scoped>
.first {
  font-size: 1.15rem;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 0.7rem;
  margin-top: 1rem;
}
.two {
  display: grid;
  grid-template-columns: 13rem minmax(0, 1fr);
  gap: 1.8rem;
}
.rack {
  display: flex;
  flex-direction: column;
  gap: 0;
  align-self: start;
}
.rack button {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0.1rem 0.5rem;
  text-align: left;
  padding: 0.45rem 0.5rem;
  min-height: 44px;
  border: 0;
  border-bottom: 2px solid var(--ink);
  background: none;
  cursor: pointer;
}
.rack button.on {
  background: var(--chalk-wash);
  box-shadow: inset 6px 0 0 var(--chalk);
  padding-left: 0.9rem;
}
.thumb {
  grid-column: 1 / -1;
  pointer-events: none;
}
.long {
  font-size: 0.9rem;
}
.one {
  min-width: 0;
}
.yields {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
.yield {
  display: flex;
  flex-direction: column;
  gap: 0.25rem;
  align-items: flex-start;
  padding: 0.6rem 0.9rem;
  border: 2px solid var(--ink);
  border-radius: var(--edge);
  background: var(--paper);
  cursor: pointer;
}
.yield.on {
  border-color: var(--chalk);
  box-shadow: inset 0 -6px 0 var(--chalk);
}
.yield.plain {
  border-color: transparent;
  background: none;
  cursor: default;
}
.yield small {
  font-size: 0.9rem;
}
.advice {
  font-size: 1.1rem;
  font-weight: 560;
}
.end {
  margin-top: 2rem;
}
@media (max-width: 860px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    gap: 1rem;
  }
  .rack {
    flex-direction: row;
    overflow-x: auto;
    max-width: 100%;
  }
  .rack button {
    flex: 0 0 auto;
    border-bottom: 2px solid var(--ink);
  }
  .thumb,
  .long {
    display: none;
  }
}
</style>

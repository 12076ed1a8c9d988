<script setup lang="ts">
/**
 * All boards under one ruler with what is chalked on them; blanks are dragged, or moved by keys,
 * and say at once whether they hold.
 */
import { useEventListener } from "@vueuse/core";
import { computed, nextTick, onBeforeUnmount, ref, useTemplateRef } from "vue";
import type { Board, Layout, Part, Schemas } from "../../api/client";
import BoardRuler from "../../board/BoardRuler.vue";
import { itemName, placeAt, type Item, type Plan, type Segment } from "../../board/geometry";
import type { System } from "../../measure";
import CarriedNote from "./CarriedNote.vue";
import PlanLane from "./PlanLane.vue";
import PlanTray from "./PlanTray.vue";
import { follow, pinch } from "./drag";
import { useHand } from "./hand";
import { nudged, whereIs, type Move, type Target } from "./moves";
import { TICKS_PER_INCH } from "../../measure";

type Fixings = Schemas["FixingsBody"];
const props = defineProps<{
  boards: Board[];
  plan?: Plan;
  parts: Part[];
  layout: Layout | null;
  system: System;
  face: "A" | "B";
  zoom: number;
  width: number;
  chosen: string;
  movable: boolean;
  drawing: boolean; // a forbidden place is about to be drawn
  reasons: Record<string, string>;
  depths: number; // the project, where what flattening takes is shown
}>();
const emit = defineEmits<{
  part: [string];
  pick: [Item | null];
  move: [Move];
  forbid: [{ board: string; x0: number; x1: number; y0: number; y1: number }];
  rest: [string];
  first: [string];
  zoom: [number];
}>();
const picked = defineModel<Item | null>("picked", { required: true });

const { held, refused, target, tried, move, aim, away, takeInHand, letGo } = useHand(() => props.layout);
const dragged = ref(false);
const carrying = ref(false); // by keys
const scrolled = ref(0); // sideways, so far
const pointer = ref({ x: 0, y: 0 });
const bench = useTemplateRef<HTMLElement>("bench");

const fixings = computed<Fixings>(
  () => props.layout?.fixings ?? { pins: [], forbidden: [], excluded: [], priority: [], begun: [] },
);
const pins = computed(() => fixings.value.pins.map((i) => itemName(i)));
const cut = computed(
  () => new Map<string, Segment[]>(props.plan?.boards.map((b) => [b.board, b.segments]) ?? []),
);
const gone = computed(() => (props.plan?.closed ?? []).flatMap((c) => c.items.map((i) => itemName(i))));
/** What can be laid out first, then what stays in the rack, apart from both what is being cut. */
const lanes = computed(() => {
  const found = props.boards.map((board) => ({
    board,
    lies: cut.value.get(board.id) ?? [],
    begun: fixings.value.begun.includes(board.id),
  }));
  const place = (lane: (typeof found)[number]) => (lane.begun ? 2 : lane.lies.length ? 0 : 1);
  return found.sort((a, b) => place(a) - place(b));
});
const firstCut = computed(() => lanes.value.find((l) => l.begun)?.board.id);
/** While something is carried the board it is over is drawn as it would be. */
function segmentsOf(board: string, lies: Segment[]): Segment[] {
  const now = tried.value;
  return held.value && now?.holds && now.board === board ? now.segments : lies;
}
const NONE: string[] = [];
/** The pieces of the blank that is carried over another board. */
const carriedAway = computed(() => {
  const name = held.value && tried.value?.holds ? itemName(held.value) : "";
  for (const { board, lies } of name ? lanes.value : [])
    for (const strip of lies.flatMap((s) => s.strips))
      for (const blank of strip.blanks) {
        const items = blank.layers.flat().map(itemName);
        if (items.includes(name)) return { board: board.id, items };
      }
  return null;
});
/** Pieces of a board that are not there any more: they went another way, or are carried over another board. */
function goneOf(board: string, begun: boolean): string[] {
  if (begun) return gone.value;
  return carriedAway.value?.board === board && tried.value?.board !== board ? carriedAway.value.items : NONE;
}
const NOWHERE: Fixings["forbidden"] = [];
const forbidden = computed(() => {
  const found = new Map<string, Fixings["forbidden"]>();
  for (const f of fixings.value.forbidden) found.set(f.board, [...(found.get(f.board) ?? []), f]);
  return found;
});
const itemInHand = computed(() => (dragged.value || carrying.value ? held.value : null) ?? picked.value);
const inHand = computed(() => (itemInHand.value ? itemName(itemInHand.value) : ""));
/** The board that what is in hand, or picked, lies on. */
const home = computed(() => {
  const item = held.value ?? itemInHand.value;
  return item ? whereIs(props.plan, item)?.board : undefined;
});
/** What is in hand, for the boards it can be seen on: the others need not be drawn anew. */
const inHandOn = (board: string) =>
  board === home.value || board === tried.value?.board ? inHand.value : "";
const longest = computed(() => Math.max(1, ...props.boards.map((b) => b.length)));
const scale = computed(() => ((props.width - 24) / (longest.value / TICKS_PER_INCH)) * props.zoom);

function boardUnder(event: { clientX: number; clientY: number }): Target | undefined {
  // Past its end a board still goes on: only above and below is off the boards.
  const box = bench.value!.getBoundingClientRect();
  const x = Math.min(Math.max(event.clientX, box.left + 2), box.right - 3);
  const lane = document.elementFromPoint(x, event.clientY)?.closest<HTMLElement>("[data-board]");
  const svg = lane?.querySelector("svg.board");
  const board = props.boards.find((b) => b.id === lane?.dataset.board);
  if (!svg || !board) return undefined;
  return { board: board.id, ...placeAt(svg.getBoundingClientRect(), board, scale.value, props.face, event) };
}
let grabbed = { x: 0, y: 0 }; // where on the blank the hand is, from its middle
let fromBoard = false; // and not from the tray
function grab(item: Item, event: PointerEvent): void {
  if (event.button || props.drawing || carrying.value || held.value) return;
  const home = whereIs(props.plan, item);
  const under = boardUnder(event);
  fromBoard = !!under;
  grabbed = home && under ? { x: under.x - home.x, y: under.y - home.y } : { x: 0, y: 0 };
  takeInHand(item);
  dragged.value = false;
  stop = follow(event, bench.value, { moved: drag, dropped: drop, givenUp: giveUp });
}
let stop = (): void => undefined;
function giveUp(): void {
  dragged.value = false;
  letGo();
}
function drag(event: PointerEvent): void {
  dragged.value = true;
  pointer.value = { x: event.clientX, y: event.clientY };
  const under = boardUnder(event);
  if (under) aim({ ...under, x: under.x - grabbed.x, y: under.y - grabbed.y });
  else away(); // off the boards it goes back to where it lay
}
function drop(): void {
  const item = held.value;
  const to = dragged.value && move.value && !refused() ? move.value : null;
  const tapped = !dragged.value;
  dragged.value = false;
  letGo();
  if (to) emit("move", to);
  // What was touched counts: the boards may have moved on the page before the pointer was up.
  if (tapped && item && fromBoard) emit("part", item.part);
  if (tapped && item) pick(item);
  else picked.value = item; // not sooner: what is told about it would push the boards about
  swallowClick();
}
/** The click that may come of a pointer that is up says nothing more. */
function swallowClick(): void {
  const swallow = (event: MouseEvent): void => {
    event.stopPropagation();
    done();
  };
  const done = (): void => {
    window.removeEventListener("click", swallow, true);
    window.removeEventListener("pointerdown", done, true);
    window.removeEventListener("keydown", done, true);
  };
  window.addEventListener("click", swallow, true);
  window.addEventListener("pointerdown", done, true);
  window.addEventListener("keydown", done, true);
}
/** Take the picked blank by keys: arrows move it, Enter lays it down. */
function carry(): void {
  if (!picked.value || !props.movable) return;
  const home = whereIs(props.plan, picked.value);
  const start = lanes.value[0]?.board;
  if (!home && !start) return;
  takeInHand(picked.value);
  carrying.value = true;
  aim(
    home
      ? { board: home.board, x: home.x, y: home.y }
      : { board: start!.id, x: Math.round(start!.length / 2), y: 0 },
  );
}
function key(event: KeyboardEvent): void {
  if (!carrying.value || !target.value) return;
  const next = nudged(
    target.value,
    event.key,
    event.shiftKey,
    lanes.value.map((l) => l.board),
  );
  if (next) {
    aim(next);
    void nextTick(() =>
      document
        .querySelector(`[data-board="${CSS.escape(next.board)}"]`)
        ?.scrollIntoView({ block: "nearest" }),
    );
  } else if (event.key === "Enter") {
    if (!refused()) {
      if (move.value) emit("move", move.value);
      carrying.value = false;
      letGo();
    }
  } else if (event.key === "Escape") {
    carrying.value = false;
    letGo();
  } else return;
  event.preventDefault();
  event.stopPropagation();
}
useEventListener("keydown", key, true);
// What touch-action says is not always heeded of a shape in a picture: without this a finger may scroll instead.
useEventListener(bench, "touchmove", (event: TouchEvent) => held.value && event.preventDefault(), {
  passive: false,
});
onBeforeUnmount(stop);
function drawn(board: string, a: { x: number; y: number }, b: { x: number; y: number }): void {
  if (!props.drawing) return;
  emit("forbid", {
    board,
    x0: Math.max(0, Math.min(a.x, b.x)),
    x1: Math.max(a.x, b.x),
    y0: Math.min(a.y, b.y),
    y1: Math.max(a.y, b.y),
  });
}
const fingers = pinch((factor) => emit("zoom", factor));
function pick(item: Item): void {
  const same = picked.value && itemName(picked.value) === itemName(item);
  picked.value = same ? null : item;
}
defineExpose({ carry });
</script>

<template>
  <div>
    <PlanTray
      v-if="plan?.unplaced.length"
      :unplaced="plan.unplaced"
      :parts="parts"
      :system="system"
      :first="fixings.priority"
      :picked="inHand"
      :movable="movable"
      @grab="grab"
      @pick="pick"
      @first="emit('first', $event)"
    />
    <div class="rule" aria-hidden="true">
      <BoardRuler
        :length="longest"
        :scale="scale"
        :system="system"
        :style="{ transform: `translateX(${-scrolled}px)` }"
      />
    </div>
    <div
      ref="bench"
      class="bench"
      :class="{ drawing, carrying: held }"
      @scroll.passive="scrolled = bench!.scrollLeft"
      @pointerdown="fingers.down"
      @pointermove="fingers.move"
      @pointerup="fingers.up"
      @pointercancel="fingers.up"
      @wheel="fingers.wheel"
    >
      <div class="under">
        <div
          v-for="{ board, lies, begun } in lanes"
          :key="board.id"
          class="lane"
          :data-board="board.id"
          :class="{ aimed: target?.board === board.id, begun }"
        >
          <h2 v-if="board.id === firstCut" class="apart">
            {{ $t("Being cut: what is done stands, and nothing here is moved") }}
          </h2>
          <PlanLane
            :board="board"
            :lies="lies"
            :segments="segmentsOf(board.id, lies)"
            :parts="parts"
            :scale="scale"
            :system="system"
            :face="face"
            :chosen="chosen"
            :pins="pins"
            :picked="inHandOn(board.id)"
            :forbidden="forbidden.get(board.id) ?? NOWHERE"
            :excluded="fixings.excluded.includes(board.id)"
            :faded="!!plan && !lies.length && target?.board !== board.id"
            :movable="movable && !begun"
            :drawing="drawing"
            :gone="goneOf(board.id, begun)"
            :carried="!!held && board.id === home"
            :reason="(plan && reasons[board.id]) || ''"
            :depths="held ? 0 : depths"
            @part="emit('part', $event)"
            @pick="pick"
            @grab="grab"
            @place="picked = null"
            @drawn="(a, b) => drawn(board.id, a, b)"
            @rest="emit('rest', board.id)"
          />
        </div>
      </div>
    </div>
    <CarriedNote
      v-if="held && (dragged || carrying) && tried"
      :name="itemName(held)"
      :tried="tried"
      :pointer="pointer"
      :keys="carrying"
    />
  </div>
</template>

<style scoped>
.bench {
  touch-action: pan-x pan-y;
  overflow-x: auto;
  min-width: 0;
}
.bench.drawing {
  cursor: crosshair;
}
.bench.carrying {
  user-select: none;
}
.under {
  width: max-content;
  min-width: 100%;
}
/* Beside what scrolls sideways, so that it stays under the tape when the page scrolls down. */
.rule {
  position: sticky;
  top: var(--tape-high);
  z-index: 4;
  overflow: hidden;
}
.lane {
  padding-top: 0.55rem;
}
.apart {
  margin: 1.2rem 0 0.4rem 6px;
  font-size: 1.05rem;
  position: sticky;
  left: 6px;
  width: max-content;
  max-width: 90vw;
}
.lane.aimed .name b {
  box-shadow: 0 4px 0 var(--chalk);
}
</style>

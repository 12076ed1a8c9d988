<script setup lang="ts">
/**
 * One board under the ruler, with its name and what is chalked on it. A component of its own, so that what is
 * carried draws only the boards anew that it changes.
 */
import { computed } from "vue";
import { useRoute } from "vue-router";
import type { Board, Part, Schemas } from "../../api/client";
import BoardDrawing from "../../board/BoardDrawing.vue";
import { itemName, type Item, type Segment } from "../../board/geometry";
import Fig from "../../controls/Fig.vue";
import Len from "../../controls/Len.vue";
import type { System } from "../../measure";
import { money } from "../../money";
import LaneDepths from "./LaneDepths.vue";

type Place = { x: number; y: number };
const props = defineProps<{
  board: Board;
  lies: Segment[]; // as it stands
  segments: Segment[]; // as it would be with what is carried
  parts: Part[];
  scale: number;
  system: System;
  face: "A" | "B";
  chosen: string;
  pins: string[];
  picked: string;
  forbidden: Schemas["FixingsBody"]["forbidden"];
  excluded: boolean;
  faded: boolean;
  movable: boolean;
  drawing: boolean;
  gone: string[];
  carried: boolean; // a piece of it is in hand
  reason: string;
  depths: number;
}>();
const emit = defineEmits<{
  part: [string];
  pick: [Item];
  grab: [Item, PointerEvent];
  place: [];
  drawn: [Place, Place];
  rest: [];
}>();
const route = useRoute();
const NONE: string[] = [];
const order = computed(() =>
  props.carried
    ? props.lies.flatMap((s) => s.strips.flatMap((t) => t.blanks.map((k) => itemName(k.layers[0]![0]!))))
    : NONE,
);
</script>

<template>
  <div class="name">
    <RouterLink :to="{ name: 'boards', params: { project: route.params.project, board: board.id } }"
      ><b>{{ board.id }}</b></RouterLink
    >
    <span class="soft"
      >{{ board.species }}, <Len :ticks="board.length" :system="system" />{{
        board.price ? `, ${money(board.price)}` : $t(", owned")
      }}</span
    >
    <span v-if="reason" class="soft why"><Fig :text="reason" /></span>
    <label v-if="movable" class="tick keep"
      ><input type="checkbox" :checked="excluded" @change="emit('rest')" /> {{ $t("leave it whole") }}</label
    >
  </div>
  <BoardDrawing
    :board="board"
    :scale="scale"
    :system="system"
    :face="face"
    :segments="segments"
    :parts="parts"
    :chosen="chosen"
    :pins="pins"
    :picked="picked"
    :forbidden="forbidden"
    :faded="faded"
    :movable="movable"
    :order="order"
    :gone="gone"
    :pointing="drawing ? 'drag' : ''"
    choosable
    @part="emit('part', $event)"
    @pick="emit('pick', $event)"
    @grab="(item, event) => emit('grab', item, event)"
    @place="emit('place')"
    @drawn="(a, b) => emit('drawn', a, b)"
  >
    <template v-if="depths && lies.length" #default="{ x, y }"
      ><LaneDepths
        :project="depths"
        :board="board"
        :segments="lies"
        :face="face"
        :system="system"
        :x="x"
        :y="y"
    /></template>
  </BoardDrawing>
</template>

<style scoped>
.name a {
  min-width: 24px;
  line-height: 24px;
}
.name {
  display: flex;
  align-items: center;
  gap: 0.7rem;
  padding-left: 6px;
  font-size: 0.9rem;
  position: sticky;
  left: 0;
  width: max-content;
}
.keep {
  font-size: 0.85rem;
}
</style>

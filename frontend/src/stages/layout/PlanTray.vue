<script setup lang="ts">
/** What lies nowhere yet: to be dragged onto a board, or placed first when the rest is solved. */
import type { Part } from "../../api/client";
import type { Item, Plan } from "../../board/geometry";
import Fig from "../../controls/Fig.vue";
import Len from "../../controls/Len.vue";
import type { System } from "../../measure";

defineProps<{
  unplaced: Plan["unplaced"];
  parts: Part[];
  system: System;
  first: string[];
  picked: string;
  movable: boolean;
}>();
const emit = defineEmits<{ grab: [Item, PointerEvent]; pick: [Item]; first: [string] }>();
const item = (u: Plan["unplaced"][number]): Item => ({ part: u.part, n: u.n, stave: 0 });
</script>

<template>
  <div class="tray" role="group" :aria-label="$t('The tray')">
    <h3>
      {{ $t("In the tray") }}
      <span class="soft">{{ $t("{n} lies nowhere | {n} lie nowhere", unplaced.length) }}</span>
    </h3>
    <ul>
      <li v-for="u in unplaced" :key="u.part + u.n" :class="{ picked: picked === u.part + u.n }">
        <button
          class="piece"
          :class="{ movable }"
          :aria-pressed="picked === u.part + u.n"
          @pointerdown="movable && emit('grab', item(u), $event)"
          @click="emit('pick', item(u))"
        >
          <b>{{ u.part }}{{ u.n }}</b>
          <span>{{ parts.find((p) => p.id === u.part)?.name }}</span>
          <span v-for="p in parts.filter((q) => q.id === u.part)" :key="p.id" class="soft"
            ><Len :ticks="p.length" :system="system" bare /> ×
            <Len :ticks="p.width" :system="system" bare /> × <Len :ticks="p.thickness" :system="system"
          /></span>
        </button>
        <span class="why soft"><Fig :text="u.why" /></span>
        <label class="tick"
          ><input type="checkbox" :checked="first.includes(u.part)" @change="emit('first', u.part)" />
          {{ $t("place {part} first", { part: u.part }) }}</label
        >
      </li>
    </ul>
  </div>
</template>

<style scoped>
.tray {
  border-top: 6px solid var(--crayon);
  background: var(--paper);
  padding: 0.6rem 0.8rem 0.8rem;
  margin-bottom: 1rem;
}
ul {
  list-style: none;
  margin: 0.4rem 0 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.2rem 0.8rem;
  max-width: 34rem;
}
.piece {
  display: inline-flex;
  gap: 0.6rem;
  align-items: baseline;
  min-height: 44px;
  padding: 0.4rem 0.8rem;
  border: 1.5px solid var(--ink);
  background: #fff;
  cursor: pointer;
}
.piece.movable {
  cursor: grab;
  touch-action: none;
}
.picked .piece {
  outline: 4px solid var(--chalk);
}
.why {
  flex: 1 1 14rem;
  font-size: 0.9rem;
}
</style>

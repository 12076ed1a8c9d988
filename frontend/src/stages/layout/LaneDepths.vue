<script setup lang="ts">
/** What flattening takes off each segment of a board as it is cut, laid over its drawing. */
import { keepPreviousData, useQuery } from "@tanstack/vue-query";
import { computed } from "vue";
import { api, type Board } from "../../api/client";
import DepthLayer from "../../board/DepthLayer.vue";
import type { Segment } from "../../board/geometry";
import type { System } from "../../measure";

const props = defineProps<{
  project: number;
  board: Board;
  segments: Segment[];
  face: "A" | "B";
  system: System;
  x: (t: number) => number;
  y: (t: number) => number;
}>();
const places = computed(() =>
  [...new Set(props.segments.flatMap((s) => [s.x0, s.x1]))]
    .filter((x) => x > 0 && x < props.board.length)
    .sort((a, b) => a - b),
);
const { data } = useQuery({
  queryKey: computed(() => [
    "cuts",
    props.project,
    JSON.stringify(props.board),
    JSON.stringify(places.value),
  ]),
  queryFn: async () =>
    (
      await api.POST("/api/projects/{project}/cuts", {
        params: { path: { project: props.project } },
        body: { board: props.board, places: places.value },
      })
    ).data!.pieces,
  placeholderData: keepPreviousData,
  gcTime: 10_000,
});
const shown = computed(() =>
  (data.value ?? []).filter((p) => props.segments.some((s) => s.x0 < p.x1 && s.x1 > p.x0)),
);
</script>

<template>
  <DepthLayer opacity="0.55" :pieces="shown" :face="face" :system="system" :x="x" :y="y" />
</template>

/** Drawings of a project, what was read in them, and what was marked on them by eye. */
import { useQuery } from "@tanstack/vue-query";
import { computed, type Ref } from "vue";
import { api, type Drawing } from "./client";

/** All drawings; asked again while one is being read. */
export function useDrawings(pk: Ref<number>) {
  return useQuery({
    queryKey: computed(() => ["drawings", pk.value]),
    queryFn: async () =>
      (await api.GET("/api/projects/{project}/drawings", { params: { path: { project: pk.value } } })).data!
        .drawings,
    refetchInterval: (query) => (query.state.data?.some(beingRead) ? 400 : false),
  });
}

export function beingRead(drawing: Drawing): boolean {
  return drawing.state === "waiting" || drawing.state === "reading";
}

/** What was read in a drawing that has been read. */
export function useReading(drawing: Ref<Drawing | undefined>) {
  return useQuery({
    queryKey: computed(() => ["reading", drawing.value?.pk, drawing.value?.state]),
    queryFn: async () =>
      (await api.GET("/api/drawings/{drawing}/reading", { params: { path: { drawing: drawing.value!.pk } } }))
        .data!,
    enabled: computed(() => drawing.value?.state === "done"),
    staleTime: 60_000,
  });
}

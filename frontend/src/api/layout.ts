import { useQuery } from "@tanstack/vue-query";
import { computed, type Ref } from "vue";
import { api } from "./client";

/** The layout last asked for and the one that stands; asked again while a search runs. */
export function useLayout(pk: Ref<number>) {
  return useQuery({
    queryKey: computed(() => ["layout", pk.value]),
    queryFn: async () =>
      (await api.GET("/api/projects/{project}/layout", { params: { path: { project: pk.value } } })).data!,
    enabled: computed(() => Number.isFinite(pk.value)),
    refetchInterval: (query) => {
      const state = query.state.data?.latest?.state;
      return state === "waiting" || state === "searching" ? 400 : false;
    },
  });
}

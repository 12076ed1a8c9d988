import { keepPreviousData, useQuery } from "@tanstack/vue-query";
import { computed, type Ref } from "vue";
import { api, type Board } from "../../api/client";

/** What a board will yield; asked again whenever anything about it changes. */
export function useLook(pk: Ref<number>, board: Ref<Board | undefined>) {
  return useQuery({
    queryKey: computed(() => ["look", pk.value, JSON.stringify(board.value)]),
    queryFn: async () =>
      (
        await api.POST("/api/projects/{project}/look", {
          params: { path: { project: pk.value } },
          body: { board: board.value! },
        })
      ).data!,
    enabled: computed(() => !!board.value),
    placeholderData: keepPreviousData,
    gcTime: 60_000,
  });
}

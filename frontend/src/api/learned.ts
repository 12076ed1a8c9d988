/** What a workshop has learned of itself. */
import { useQuery } from "@tanstack/vue-query";
import { computed, type Ref } from "vue";
import { api } from "./client";

export function useLearned(workshop: Ref<number | undefined>) {
  return useQuery({
    queryKey: computed(() => ["learned", workshop.value]),
    queryFn: async () =>
      (
        await api.GET("/api/workshops/{workshop}/learned", {
          params: { path: { workshop: workshop.value! } },
        })
      ).data!,
    enabled: computed(() => workshop.value !== undefined),
  });
}

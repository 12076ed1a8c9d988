/** The woods a maker may name: those known by their figures, and those of this project. */
import { useQuery } from "@tanstack/vue-query";
import { computed, type ComputedRef } from "vue";
import { api } from "./client";
import { useProject } from "./project";

export function useWoods(): ComputedRef<string[]> {
  const { project } = useProject();
  const { data } = useQuery({
    queryKey: ["woods"],
    queryFn: async () => (await api.GET("/api/woods")).data!.woods.map((w) => w.name),
    staleTime: Infinity,
  });
  return computed(() => {
    const own = [...(project.value?.parts ?? []), ...(project.value?.boards ?? [])].map((t) => t.species);
    return [...new Set([...own, ...(data.value ?? [])])].filter(Boolean);
  });
}

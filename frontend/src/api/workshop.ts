/** Workshops: the machines, waits, hours and people that all projects made in one share. */
import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { computed, type Ref } from "vue";
import { api, small, type Schemas } from "./client";
import type { Settings, Whole } from "./milling";
import { useVersioned } from "./versioned";

export type Workshop = Whole<Schemas["WorkshopBody"]["workshop"]>;
/** What the settings of a project's milling have of its workshop. */
export type Shared = Pick<Settings, "machines" | "waits" | "hours" | "over" | "enough">;

export function useWorkshops() {
  return useQuery({
    queryKey: ["workshops"],
    queryFn: async () => (await api.GET("/api/workshops")).data!.workshops,
  });
}

/** A workshop with its name, and changing it. */
export function useWorkshop(pk: Ref<number>) {
  type Named = { name: string; workshop: Workshop };
  const named = ({ name, workshop, version }: Schemas["WorkshopBody"]) => ({
    value: { name, workshop: workshop as Workshop },
    version,
  });
  return useVersioned<Named>({
    name: "workshop",
    of: pk,
    get: async (workshop) =>
      named((await api.GET("/api/workshops/{workshop}", { params: { path: { workshop } } })).data!),
    put: async (workshop, value, version) =>
      named(
        (
          await api.PUT("/api/workshops/{workshop}", {
            params: { path: { workshop } },
            body: { ...value, version },
            keepalive: small(value),
          })
        ).data!,
      ),
    stale: [
      "workshops",
      "learned",
      "project-workshop",
      "milling-settings",
      "milling",
      "schools",
      "days",
      "survey",
    ],
  });
}

/** The workshop a project is made in, and choosing another. */
export function useProjectWorkshop(project: Ref<number>) {
  const client = useQueryClient();
  const { data } = useQuery({
    queryKey: computed(() => ["project-workshop", project.value]),
    queryFn: async () =>
      (await api.GET("/api/projects/{project}/workshop", { params: { path: { project: project.value } } }))
        .data!,
    enabled: computed(() => Number.isFinite(project.value)),
  });
  async function choose(workshop: number): Promise<void> {
    await api.PUT("/api/projects/{project}/workshop", {
      params: { path: { project: project.value } },
      body: { workshop },
    });
    for (const name of [
      "project-workshop",
      "workshops",
      "milling-settings",
      "milling",
      "schools",
      "days",
      "account",
      "shop-books",
      "learned",
      "survey",
    ])
      await client.invalidateQueries({ queryKey: [name] });
  }
  return { workshop: data, choose };
}

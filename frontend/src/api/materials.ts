/** What a project needs besides its boards: lengths, sheets, hardware, glue, finish. */
import { computed, type Ref } from "vue";
import { api, small, type Schemas } from "./client";
import { useVersioned } from "./versioned";
import type { Whole } from "./milling";

export type Material = Whole<Schemas["Material"]>;

/** A line's price in the money of the shop. */
export const costOf = (m: Material): number => Math.round(m.count * Number(m.each) * 100) / 100;

export function useMaterials(project: Ref<number>) {
  const lines = ({ materials, version }: Schemas["MaterialsBody"]) => ({
    value: materials as Material[],
    version,
  });
  const path = (pk: number) => ({ params: { path: { project: pk } } });
  const { value, change } = useVersioned<Material[]>({
    name: "materials",
    of: project,
    get: async (pk) => lines((await api.GET("/api/projects/{project}/materials", path(pk))).data!),
    put: async (pk, materials, version) =>
      lines(
        (
          await api.PUT("/api/projects/{project}/materials", {
            ...path(pk),
            body: { materials, version },
            keepalive: small(materials),
          })
        ).data!,
      ),
    stale: [],
  });
  const cost = computed(() => (value.value ?? []).reduce((sum, m) => sum + costOf(m), 0));
  return { materials: value, change, cost };
}

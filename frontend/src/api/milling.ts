import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { ElMessage } from "element-plus";
import { computed, type Ref } from "vue";
import { api, type Schemas } from "./client";

export type Milling = Schemas["MillingBody"];

/** The steps of the standing plan, and ticking them off. */
export function useMilling(pk: Ref<number>) {
  const client = useQueryClient();
  const key = computed(() => ["milling", pk.value]);
  const query = useQuery({
    queryKey: key,
    queryFn: async () =>
      (await api.GET("/api/projects/{project}/milling", { params: { path: { project: pk.value } } })).data!,
    enabled: computed(() => Number.isFinite(pk.value)),
  });

  async function mark(stepKey: string, done: boolean): Promise<void> {
    const now = query.data.value;
    if (!now) return;
    client.setQueryData<Milling>(key.value, {
      ...now,
      routes: now.routes.map((r) => ({ ...r, steps: r.steps.map((s) => (s.key === stepKey ? { ...s, done } : s)) })),
    });
    try {
      await api.PUT("/api/layouts/{layout}/steps", { params: { path: { layout: now.layout } }, body: { key: stepKey, done } });
    } catch (problem) {
      ElMessage({ type: "error", message: `Not kept: ${problem instanceof Error ? problem.message : problem}`, duration: 8000 });
      await client.invalidateQueries({ queryKey: key.value });
    }
  }
  return { ...query, mark };
}

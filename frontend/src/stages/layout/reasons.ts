/** Why the plan is as it is: sentences by what they are about. */
import { useQuery } from "@tanstack/vue-query";
import { computed, type Ref } from "vue";
import { api, type Layout } from "../../api/client";
import { itemName, type Item, type Plan } from "../../board/geometry";
import type { whereIs } from "./moves";

export function useReasons(
  standing: Ref<Layout | null>,
  plan: Ref<Plan | undefined>,
  picked: Ref<Item | null>,
  lies: Ref<ReturnType<typeof whereIs>>,
) {
  const { data: why } = useQuery({
    queryKey: computed(() => ["reasons", standing.value?.pk]),
    queryFn: async () =>
      (await api.GET("/api/layouts/{layout}/reasons", { params: { path: { layout: standing.value!.pk } } }))
        .data!.reasons,
    enabled: computed(() => !!standing.value?.plan),
  });
  const reasons = computed(() =>
    Object.fromEntries((why.value ?? []).filter((r) => !r.wish).map((r) => [r.about, r.text])),
  );
  /** Of the piece in hand, and of the cut it lies in. */
  const pickedWhy = computed(() => {
    if (!picked.value || !lies.value) return [];
    const name = itemName(picked.value);
    const board = plan.value?.boards.find((b) => b.board === lies.value!.board);
    const cuts = [...(board?.segments ?? [])].sort((a, b) => a.x0 - b.x0);
    const n = cuts.findIndex((s) => s.x0 <= lies.value!.x && lies.value!.x <= s.x1);
    const about = (why.value ?? []).find((r) => !r.wish && r.about.split(/ [+/] /).includes(name))?.text;
    return [about, reasons.value[`${lies.value.board}.${n + 1}`]].filter(Boolean) as string[];
  });
  /** Wishes that are not kept. */
  const unkept = computed(() => (why.value ?? []).filter((r) => r.wish));
  return { reasons, pickedWhy, unkept };
}

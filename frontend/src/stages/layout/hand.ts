/** What is in hand, from the moment a blank is taken up until it lies: tried again and again, made once. */
import { computed, ref, shallowRef } from "vue";
import { api, type Layout, type Schemas } from "../../api/client";
import { itemName, type Item } from "../../board/geometry";
import { moveOf, type Move, type Target } from "./moves";

type Tried = Schemas["TriedBody"];

export function useHand(layout: () => Layout | null) {
  const held = shallowRef<Item | null>(null); // the item in hand
  const target = ref<Target | null>(null);
  const tried = shallowRef<Tried | null>(null);
  let wanted: Move | null = null;
  let asking = false;

  /** One question at a time; what came up meanwhile is asked next. */
  async function attempt(move: Move): Promise<void> {
    wanted = move;
    if (asking) return;
    asking = true;
    try {
      while (wanted) {
        const asked: Move = wanted;
        wanted = null;
        const pk = layout()?.pk;
        if (!pk) break;
        const answer = (
          await api.POST("/api/layouts/{layout}/try", { params: { path: { layout: pk } }, body: asked })
        ).data!;
        if (held.value && itemName(asked.item) === itemName(held.value)) tried.value = answer;
      }
    } finally {
      asking = false;
    }
  }
  function aim(at: Target): void {
    target.value = at;
    if (held.value) void attempt(moveOf("lay-down", held.value, at));
  }
  /** It is over no board: nothing is aimed at. */
  function away(): void {
    wanted = null;
    target.value = null;
    tried.value = null;
  }
  function takeInHand(item: Item): void {
    held.value = item;
    tried.value = null;
    target.value = null;
  }
  function letGo(): void {
    held.value = null;
    tried.value = null;
    target.value = null;
    wanted = null;
  }
  const move = computed(() =>
    held.value && target.value ? moveOf("lay-down", held.value, target.value) : null,
  );
  /** Whether it is known by now that it does not hold where it is. */
  const refused = () => !asking && wanted === null && tried.value?.holds === false;
  return { held, refused, target, tried, move, aim, away, takeInHand, letGo };
}

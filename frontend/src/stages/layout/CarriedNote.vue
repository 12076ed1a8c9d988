<script setup lang="ts">
/** What is told beside a piece in hand: whether it holds where it is, and what that would cost. */
import { I18nT } from "vue-i18n";
import type { Schemas } from "../../api/client";
import { t } from "../../i18n/i18n";
import { money } from "../../money";

defineProps<{
  name: string;
  tried: Schemas["TriedBody"];
  pointer: { x: number; y: number };
  keys: boolean; // it is carried by keys
}>();
const costs = (now: number, before: number) =>
  now === before
    ? t("cost stays {now}", { now: money(now) })
    : t("cost {before} → {now}", { before: money(before), now: money(now) });
</script>

<template>
  <div
    class="says"
    :class="{ against: !tried.holds, keys }"
    role="status"
    :style="{ '--x': `${pointer.x}px`, '--y': `${pointer.y}px` }"
  >
    <I18nT
      :keypath="
        tried.holds
          ? '{piece} holds on {board}. {cost}, {share} % of it becomes parts.'
          : '{piece} does not hold here: {why}.'
      "
      scope="global"
      ><template #piece
        ><b>{{ name }}</b></template
      ><template #board>{{ tried.board }}</template
      ><template #cost>{{ costs(tried.cost, tried.cost_before) }}</template
      ><template #share>{{ (tried.yields * 100).toFixed(1) }}</template
      ><template #why>{{ tried.why }}</template></I18nT
    >
    <span v-if="keys" class="soft">
      {{
        " " +
        $t(
          "Arrows move it an inch, with Shift an eighth, Page ↑↓ to another board; Enter lays it down, Esc leaves it.",
        )
      }}</span
    >
  </div>
</template>

<style scoped>
.says {
  position: fixed;
  z-index: 20;
  left: max(0px, min(var(--x) + 18px, 100vw - 27rem));
  top: min(var(--y) + 22px, 100vh - 6rem);
  max-width: 26rem;
  padding: 0.5rem 0.8rem;
  background: var(--paper);
  border-left: 8px solid var(--chalk);
  box-shadow: 0 2px 10px rgb(18 23 29 / 0.3);
  pointer-events: none;
}
.says.against {
  border-left-color: var(--crayon);
}
.says.keys {
  left: 50%;
  top: auto;
  bottom: 1rem;
  transform: translateX(-50%);
  max-width: 46rem;
}
</style>

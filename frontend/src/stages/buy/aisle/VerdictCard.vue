<script setup lang="ts">
/** Whether to take a board: the word, its worth beside its price, what it gives, drawn on it, and why not more. */
import { I18nT } from "vue-i18n";
import { ElTag } from "element-plus";
import "element-plus/es/components/tag/style/css";
import { computed, ref } from "vue";
import { useOffer, type BoardOffer } from "../../../api/buying";
import type { Part } from "../../../api/client";
import type { System } from "../../../measure";
import BoardDrawing from "../../../board/BoardDrawing.vue";
import { useWidth } from "../../../controls/width";
import { showUnit, TICKS_PER_INCH as IN } from "../../../measure";
import { weight, wood } from "../../../wood";
import { amount, because, counted, VERDICTS } from "../words";
import { t } from "../../../i18n/i18n";

const props = defineProps<{
  project: number;
  supplier: string;
  looked: BoardOffer;
  parts: Part[];
  system: System;
}>();
const { data: told } = useOffer(
  computed(() => props.project),
  computed(() => props.supplier),
  computed(() => props.looked.offer.board.id),
);
const TYPES = { take: "success", even: "warning", leave: "danger", "not-wanted": "info" } as const;
const frame = ref<HTMLElement>();
const width = useWidth(frame, 360);
const board = computed(() => props.looked.offer.board);
const scale = computed(() => Math.max(2, (width.value - 14) / (board.value.length / IN)));
/** As the list has it at once, and with the reason when that has come. */
const v = computed(() => told.value?.verdict ?? props.looked.verdict);
const say = (ticks: number) => showUnit(ticks, props.system);
/** Of a panel a board gives staves. */
const name = (id: string) => {
  const part = props.parts.find((p) => p.id === id);
  return part?.panel ? t("{part} (stave)", { part: part.name || id }) : part?.name || id;
};
const why = computed(() => (v.value ? because(v.value, say) : ""));
/** What is kept of it where the rest gives nothing more, a foot and more of it. */
const cutBack = computed(
  () => v.value && Object.keys(v.value.gives).length > 0 && board.value.length - v.value.keep > 12 * IN,
);
</script>

<template>
  <article ref="frame" class="verdict" aria-live="polite">
    <template v-if="v">
      <header>
        <ElTag :type="TYPES[v.word]" effect="dark" size="large" class="word">{{ VERDICTS[v.word] }}</ElTag>
        <p>
          <I18nT keypath="worth {worth} to this list, asked {price}" scope="global"
            ><template #worth
              ><b>{{ amount(v.worth) }}</b
              ><template v-if="v.error"> ± {{ amount(v.error) }}</template></template
            ><template #price
              ><b>{{ amount(v.price) }}</b></template
            ></I18nT
          >
        </p>
      </header>
      <p v-if="Object.keys(v.gives).length">
        {{ $t("Gives {gives}", { gives: counted(v.gives, name) })
        }}<template v-if="cutBack">{{ $t(", out of its first {keep}", { keep: say(v.keep) }) }}</template
        >.
      </p>
      <p v-if="why" class="soft">{{ why }}</p>
      <p v-if="v.completes">
        <b>{{ $t("With it nothing of this wood is wanted any more: stop here.") }}</b>
      </p>
    </template>
    <p v-else>{{ $t("The list wants nothing of this wood.") }}</p>
    <BoardDrawing
      :board="board"
      :segments="v?.segments ?? []"
      :parts="parts"
      :scale="scale"
      :system="system"
    />
    <p class="soft">
      {{ $t("{feet} by the tape", { feet: wood(looked.feet, system) })
      }}<template v-if="looked.over_feet > 0"
        >;
        <b class="over">{{
          $t("the ticket says {over_feet} too much, {over}", {
            over_feet: wood(looked.over_feet, system),
            over: amount(looked.over),
          })
        }}</b></template
      ><template v-else-if="looked.over_feet < 0">{{
        $t("; the ticket says {over_feet} less", { over_feet: wood(-looked.over_feet, system) })
      }}</template
      ><template v-if="looked.kg">{{ $t("; about {kg}", { kg: weight(looked.kg, system) }) }}</template>
    </p>
  </article>
</template>

<style scoped>
.verdict {
  display: flex;
  flex-direction: column;
  gap: 0.5rem;
  min-width: 0;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1rem;
  align-items: center;
}
.word {
  font-size: 1.2rem;
  font-weight: 720;
  height: auto;
  padding: 0.4rem 0.9rem;
}
.over {
  color: var(--crayon-ink);
}
</style>

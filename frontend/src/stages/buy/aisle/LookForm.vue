<script setup lang="ts">
/** A board in hand: three taps give a first word, the rest of the form a verdict. One thumb, no server needed. */
import { ElButton, ElCollapse, ElCollapseItem, ElMessage, ElTag } from "element-plus";
import "element-plus/es/components/collapse/style/css";
import "element-plus/es/components/collapse-item/style/css";
import "element-plus/es/components/tag/style/css";
import { computed, ref } from "vue";
import type { OfferPut, Supplier, Words } from "../../../api/buying";
import type { System } from "../../../measure";
import BoardDrawing from "../../../board/BoardDrawing.vue";
import { plainFault } from "../../../board/make";
import ChoiceField from "../../../controls/fields/ChoiceField.vue";
import CountField from "../../../controls/fields/CountField.vue";
import MeasureField from "../../../controls/MeasureField.vue";
import { useWidth } from "../../../controls/width";
import { isMetric, show, TICKS_PER_INCH as IN, TICKS_PER_MM as MM } from "../../../measure";
import { faultAt, nothingYet, toBoard, type Quick } from "../../boards/quick";
import { firstWord, ticketFeet, type Trouble } from "./aisle";
import { CUBIC_METRES, wood } from "../../../wood";
import { amount, VERDICTS } from "../words";
import { t } from "../../../i18n/i18n";

const props = defineProps<{
  mark: string;
  woods: readonly (readonly [species: string, quarter: string])[];
  supplier: Supplier;
  words: Words[];
  system: System;
}>();
const emit = defineEmits<{ judge: [OfferPut]; leave: [] }>();
const first = props.woods[0] ?? ["white oak", "4/4"];
const q = ref<Quick>({ ...nothingYet(first[0]), quarter: first[1] });
const which = computed({
  get: () => `${q.value.species}|${q.value.quarter}`,
  set: (key) => {
    const [species, quarter] = key.split("|");
    q.value = { ...q.value, species: species!, quarter: quarter! };
  },
});
const trouble = ref<Trouble>("none");
const TROUBLES: [Trouble, string][] = [
  ["none", t("nothing wrong")],
  ["check", t("a check or split")],
  ["twist", t("twisted")],
];
const SURFACES = [
  ["rough", "rough"],
  ["S2S", t("S2S, two faces planed")],
  ["S2S1E", t("S2S1E, and an edge")],
  ["S4S", t("S4S, all round")],
] as const;
const lineOf = computed(() =>
  props.supplier.prices.find((p) => p.species === q.value.species && p.quarter === q.value.quarter),
);
const surfacing = ref(lineOf.value?.surfacing ?? "rough");
const grade = ref(lineOf.value?.grade ?? "");
const typedPrice = ref<number>();
/** What is asked for one of what its price is for. */
const asks = computed({
  get: () => typedPrice.value ?? Number(lineOf.value?.asks ?? 0),
  set: (now) => (typedPrice.value = now),
});
const per = computed(() => lineOf.value?.per ?? "board foot");
const COSTS = {
  "board foot": t("A board foot costs"),
  "cubic metre": t("A cubic metre costs"),
  foot: t("A running foot costs"),
  metre: t("A running metre costs"),
  piece: t("This piece costs"),
} as const;
const ticket = ref(0);
const sized = computed(() => !!q.value.length && !!q.value.near);
const feet = computed(() =>
  sized.value
    ? ticketFeet(
        props.supplier.ticket,
        q.value.quarter,
        ((q.value.near ?? 0) + (q.value.far ?? q.value.near ?? 0)) / 2,
        q.value.length!,
      )
    : 0,
);
const price = computed(() => {
  const long = q.value.length ?? 0;
  if (per.value === "piece") return asks.value;
  if (per.value === "foot") return (asks.value * long) / (12 * IN);
  if (per.value === "metre") return (asks.value * long) / (1000 * MM);
  const one = per.value === "cubic metre" ? asks.value * CUBIC_METRES : asks.value;
  return (ticket.value || feet.value) * one;
});
const word = computed(() => {
  const words = props.words.find((w) => w.species === q.value.species && w.quarter === q.value.quarter);
  if (!words || !sized.value) return null;
  const wide = Math.min(q.value.near!, q.value.far ?? q.value.near!);
  return firstWord(words, q.value.length!, wide, trouble.value, price.value);
});

// ---- faults, tapped on its picture -----------------------------------------------------------------
const KINDS = ["tight-knot", "loose-knot", "check", "split", "wane", "sapwood", "rot"];
const kind = ref("check");
const frame = ref<HTMLElement>();
const width = useWidth(frame, 340);
const picture = computed(() => (sized.value ? toBoard(q.value, props.mark, props.system) : null));
const scale = computed(() => Math.max(3, (width.value - 14) / ((q.value.length ?? IN) / IN)));
function tap(at: { x: number; y: number }): void {
  const face = kind.value === "sapwood" || kind.value === "tight-knot" ? "A" : "both";
  q.value = { ...q.value, defects: [...q.value.defects, faultAt(kind.value, at, q.value.length!, face)] };
}
const LONG = computed(() => (isMetric(props.system) ? [300 * MM, 600 * MM] : [12 * IN, 24 * IN]));
/** The last fault drawn out along the board: checks and wane are long. */
function longer(by: number): void {
  const last = q.value.defects.at(-1);
  if (!last) return;
  const left = last.x0 < q.value.length! - last.x1;
  const now = left
    ? { ...last, x1: Math.min(q.value.length!, last.x1 + by) }
    : { ...last, x0: Math.max(0, last.x0 - by) };
  q.value = { ...q.value, defects: [...q.value.defects.slice(0, -1), now] };
}
const GAPS = computed(() =>
  isMetric(props.system) ? [0, 3, 6, 10, 15].map((n) => n * MM) : [0, 2, 4, 6, 8].map((n) => (n * IN) / 16),
);
const WARPS = ["bow", "twist", "cup"] as const;
const moisture = ref(0);

function judge(): void {
  if (!sized.value) {
    ElMessage({ type: "error", message: t("It needs a length and a width") });
    return;
  }
  const skimmed = surfacing.value !== "rough";
  const asked: Quick = { ...q.value };
  // What is planed is as thick as the supplier leaves it, everywhere.
  if (skimmed && asked.thickest === null) asked.thickest = asked.thinnest = lineOf.value?.thickness ?? null;
  // What is wrong and not measured is taken as the first word takes it.
  const checked = asked.defects.some((d) => d.kind === "check" || d.kind === "split");
  if (trouble.value === "check" && !checked) {
    const [x1, y0] = [Math.round(asked.length! / 5), Math.round(asked.near! / 2)];
    asked.defects = [...asked.defects, plainFault("check", "both", { x0: 0, x1, y0, y1: y0 + IN / 8 })];
  }
  const rough = (Number(asked.quarter.split("/")[0]) * IN) / 4;
  if (trouble.value === "twist" && asked.twist === null) asked.twist = rough / 4;
  const { board } = toBoard(asked, props.mark, props.system);
  const EDGES = { S2S: [], S2S1E: ["datum-edge"], S4S: ["datum-edge", "far-edge"] } as const;
  board.dressed = skimmed ? ["A", "B", ...(EDGES[surfacing.value as keyof typeof EDGES] ?? [])] : [];
  board.grade = grade.value === "ungraded" ? "" : grade.value;
  if (moisture.value)
    board.moisture = [
      { percent: moisture.value, day: Math.floor(Date.now() / 86_400_000), x: null, y: null },
    ];
  emit("judge", {
    board,
    supplier: props.supplier.id,
    per_foot:
      per.value === "board foot" || !feet.value ? asks.value : price.value / (ticket.value || feet.value),
    ticket_feet: ticket.value || null,
    ticket: per.value === "board foot" || per.value === "cubic metre" ? null : price.value,
    state: "pile",
  });
}
</script>

<template>
  <section class="look">
    <header>
      <ElButton class="act quiet" @click="emit('leave')">{{ $t("‹ Boards") }}</ElButton>
      <h1>{{ mark }}</h1>
    </header>
    <ChoiceField
      v-model="which"
      :label="$t('Wood')"
      :options="woods.map(([s, n]) => [`${s}|${n}`, `${s} ${n}`])"
    />
    <div class="two">
      <MeasureField v-model="q.length" :label="$t('Length')" :system="system" />
      <MeasureField v-model="q.near" :label="$t('Width')" :system="system" />
    </div>
    <div class="chips" role="group" :aria-label="$t('What is wrong with it')">
      <ElButton
        v-for="[wrong, text] in TROUBLES"
        :key="wrong"
        class="act"
        :class="{ on: wrong === trouble }"
        :aria-pressed="wrong === trouble"
        @click="trouble = wrong"
      >
        {{ text }}
      </ElButton>
    </div>
    <p class="first" role="status">
      <template v-if="word"
        ><ElTag
          effect="dark"
          size="large"
          :type="word.word === 'take' ? 'success' : word.word === 'even' ? 'warning' : 'danger'"
          >{{ VERDICTS[word.word] }}</ElTag
        >
        <span>{{
          $t("about {worth} to this list, asked {price}", { worth: amount(word.worth), price: amount(price) })
        }}</span></template
      ><span v-else-if="sized" class="soft">{{
        $t("asked {price}, {feet}", { price: amount(price), feet: wood(feet, system) })
      }}</span
      ><span v-else class="soft">{{ $t("Length and width give a first word.") }}</span>
    </p>
    <ElCollapse>
      <ElCollapseItem :title="$t('Faults: tap them where they lie')" name="faults">
        <div class="chips">
          <ElButton v-for="k in KINDS" :key="k" class="act" :class="{ on: k === kind }" @click="kind = k">
            {{ k.replace("-", " ") }}
          </ElButton>
        </div>
        <div ref="frame" class="picture">
          <BoardDrawing v-if="picture" :board="picture.board" :scale="scale" :system="system" @place="tap" />
        </div>
        <div v-if="q.defects.length" class="chips">
          <ElButton v-for="by in LONG" :key="by" class="act" @click="longer(by)">
            {{ $t("longer by {by}", { by: show(by, system, true) }) }}
          </ElButton>
          <ElButton class="act" @click="q = { ...q, defects: q.defects.slice(0, -1) }">{{
            $t("Rub out the last")
          }}</ElButton>
        </div>
      </ElCollapseItem>
      <ElCollapseItem :title="$t('Bow, twist, cup; the far end')" name="warp">
        <div v-for="w in WARPS" :key="w" class="warp">
          <span>{{ w }}</span>
          <ElButton
            v-for="g in GAPS"
            :key="g"
            class="act"
            :class="{ on: q[w] === g }"
            :aria-label="`${w} ${g ? show(g, system, true) : $t('none')}`"
            @click="q = { ...q, [w]: q[w] === g ? null : g }"
          >
            {{ g ? show(g, system) : "0" }}
          </ElButton>
        </div>
        <div class="two">
          <MeasureField v-model="q.far" :label="$t('Width at the far end')" :system="system" />
          <MeasureField v-model="q.thinnest" :label="$t('Thinnest')" :system="system" />
        </div>
      </ElCollapseItem>
      <ElCollapseItem :title="$t('Ticket, price, grade, moisture')" name="ticket">
        <div class="two">
          <CountField v-model="ticket" :label="$t('Board feet on the ticket')" :min="0" :step="1" />
          <CountField v-model="asks" :label="COSTS[per]" :min="0" :step="0.25" />
          <CountField v-model="moisture" :label="$t('Moisture, %')" :min="0" :max="40" :step="0.5" />
          <ChoiceField v-model="surfacing" :label="$t('Surfaced')" :options="SURFACES as never" />
        </div>
        <label class="field"
          ><span>{{ $t("Grade") }}</span
          ><input v-model="grade" class="line-input"
        /></label>
      </ElCollapseItem>
    </ElCollapse>
    <ElButton class="act lead big" @click="judge">{{ $t("Judge it") }}</ElButton>
  </section>
</template>

<style scoped>
.look {
  display: flex;
  flex-direction: column;
  gap: 0.7rem;
}
header h1 {
  font-size: 1.15rem;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.7rem;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.first {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 0.8rem;
  align-items: center;
  min-height: 3rem;
  font-size: 1.05rem;
}
:deep(.el-collapse-item__header),
:deep(.el-collapse-item__content) {
  padding-inline: 0.6rem;
}
.picture {
  overflow-x: auto;
  background: var(--paper);
  border: 2px solid var(--ink);
  padding: 8px 0;
  margin: 0.5rem 0;
}
.warp {
  display: flex;
  gap: 5px;
  align-items: center;
  padding: 3px 0;
}
.warp span {
  min-width: 3.2rem;
}
.warp .act {
  flex: 1;
  padding-inline: 0.2rem;
}
.big {
  min-height: 58px;
  font-size: 1.15rem;
  position: sticky;
  bottom: 10px;
}
</style>

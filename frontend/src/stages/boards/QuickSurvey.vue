<script setup lang="ts">
/** A board recorded in the yard, one question at a time, with one thumb; anything may stay unknown. */
import { ElButton, ElMessage } from "element-plus";
import { computed, ref, watch } from "vue";
import { useRoute, useRouter } from "vue-router";
import { useProject } from "../../api/project";
import BoardDrawing from "../../board/BoardDrawing.vue";
import WarpSketch from "../../board/WarpSketch.vue";
import { useWidth } from "../../controls/width";
import WoodField from "../../controls/fields/WoodField.vue";
import { isMetric, show, TICKS_PER_INCH as IN, TICKS_PER_MM as MM, showAbout } from "../../measure";
import { forget, keep, kept } from "./draft";
import { useLook } from "./look";
import NumberPad from "./NumberPad.vue";
import {
  EMPTY,
  faultAt,
  nothingYet,
  nudged,
  padTicks,
  pressed,
  QUARTERS,
  toBoard,
  type Quick,
} from "./quick";
import { woodFigure, woodUnit } from "../../wood";
import { t } from "../../i18n/i18n";

const { pk, project, edit } = useProject();
const route = useRoute();
const router = useRouter();
const system = computed(() => project.value?.system ?? "in");
const q = ref<Quick>(nothingYet(""));
watch(
  project,
  (now) => {
    if (now && !q.value.species)
      q.value =
        kept(pk.value) ?? nothingYet(now.boards.at(-1)?.species ?? now.parts[0]?.species ?? "white oak");
  },
  { immediate: true },
);
watch(q, (now) => now.species && keep(pk.value, now));
const woods = computed(() =>
  [
    ...new Set([
      q.value.species,
      ...(project.value?.parts.map((p) => p.species) ?? []),
      "white oak",
      "ash",
      "cherry",
      "walnut",
    ]),
  ]
    .filter(Boolean)
    .slice(0, 6),
);
const mark = computed(() => {
  const boards = project.value?.boards ?? [];
  const stem = (boards.at(-1)?.id ?? "B").replace(/\d+$/, "") || "B";
  for (let n = 1; ; n++) if (!boards.some((b) => b.id === stem + n)) return stem + n;
});

type Figure = "length" | "near" | "middle" | "far" | "thickest" | "thinnest" | "bow" | "twist" | "cup";
interface Ask {
  at: Figure;
  ask: string;
  how: string;
  must?: boolean;
  sketch?: "bow" | "twist" | "cup";
}
const FIGURES: Ask[] = [
  { at: "length", ask: t("How long is it?"), how: t("The shortest edge, end to end."), must: true },
  { at: "near", ask: t("How wide at this end?"), how: t("Wood only: leave bark and wane out."), must: true },
  {
    at: "middle",
    ask: t("How wide in the middle?"),
    how: t("Not measured: taken as straight between the ends."),
  },
  { at: "far", ask: t("How wide at the far end?"), how: t("Not measured: as wide as here.") },
  { at: "thickest", ask: t("How thick at its thickest?"), how: t("Feel along both edges, then measure.") },
  { at: "thinnest", ask: t("And at its thinnest?"), how: t("Often at an end.") },
  {
    at: "bow",
    ask: t("Bow: gap under the middle?"),
    how: t("Lay it hollow side down. Or a straightedge along the hollow face: the largest gap."),
    sketch: "bow",
  },
  {
    at: "twist",
    ask: t("Twist: gap under the fourth corner?"),
    how: t("Three corners touch, the fourth stands off. Or sight over two sticks across its ends."),
    sketch: "twist",
  },
  {
    at: "cup",
    ask: t("Cup: gap across the face?"),
    how: t("A short straightedge across the hollow face: the gap in the middle."),
    sketch: "cup",
  },
];
const GAPS = computed(() =>
  isMetric(system.value)
    ? [0, 1, 2, 4, 6, 10, 15].map((m) => m * MM)
    : [0, 1, 2, 3, 4, 6, 8].map((n) => (n * IN) / 16),
);
const steps = FIGURES.length + 3;
/** The question asked, in the address: the phone's own Back goes to the one before. */
const step = computed({
  get: () => Math.min(steps - 1, Math.max(0, Number(route.query.at ?? 0) || 0)),
  set: (at) => void router.push({ query: at ? { at } : {} }),
});
function back(): void {
  void router.replace({ query: step.value > 1 ? { at: step.value - 1 } : {} });
}
const asked = computed(() => FIGURES[step.value - 1]);
const pad = ref(EMPTY);
watch(step, () => (pad.value = EMPTY));
const typed = computed(() => padTicks(pad.value, system.value));

function answer(value: number | null): void {
  q.value = { ...q.value, [asked.value!.at]: value };
  step.value++;
}
function next(): void {
  const a = asked.value;
  if (!a) {
    step.value++;
    return;
  }
  const value = typed.value ?? q.value[a.at];
  if (a.must && !value) {
    ElMessage({ type: "error", message: a.at === "length" ? t("It needs a length") : t("It needs a width") });
    return;
  }
  if (a.at === "thinnest" && value && q.value.thickest && value > q.value.thickest) {
    ElMessage({
      type: "error",
      message: t("Thinner than {thickest}, its thickest", {
        thickest: show(q.value.thickest, system.value, true),
      }),
    });
    return;
  }
  answer(value);
}

// ---- the picture of it, as far as it is known ----------------------------------------------------
const frame = ref<HTMLElement>();
const width = useWidth(frame, 360);
const sofar = computed(() =>
  q.value.length && q.value.near ? toBoard(q.value, mark.value, system.value) : null,
);
const scale = computed(() => Math.max(10, (width.value - 16) / ((q.value.length ?? IN) / IN)));
const { data: look } = useLook(
  pk,
  computed(() => (sofar.value && step.value >= FIGURES.length + 1 ? sofar.value.board : undefined)),
);
const KINDS = ["tight-knot", "loose-knot", "check", "split", "wane", "sapwood", "rot", "hole"];
const kind = ref("tight-knot");
const through = ref(false);
const chosen = ref(-1);
function tap(at: { x: number; y: number }): void {
  q.value = {
    ...q.value,
    defects: [...q.value.defects, faultAt(kind.value, at, q.value.length!, through.value ? "both" : "A")],
  };
  chosen.value = q.value.defects.length - 1;
}
function nudge(how: Parameters<typeof nudged>[1]): void {
  q.value = { ...q.value, defects: q.value.defects.map((d, i) => (i === chosen.value ? nudged(d, how) : d)) };
}
function drop(): void {
  q.value = { ...q.value, defects: q.value.defects.filter((_, i) => i !== chosen.value) };
  chosen.value = -1;
}
async function put(): Promise<void> {
  const { board } = sofar.value!;
  const price = typed.value === null ? 0 : Number(pad.value.digits || 0);
  if (
    !(await edit({
      label: t("new board {id}", { id: board.id }),
      put_boards: [{ ...board, price, was: "" }],
    }))
  )
    return;
  forget(pk.value);
  q.value = nothingYet("");
  await router.push({ name: "boards", params: { project: pk.value, board: board.id } });
}
</script>

<template>
  <main v-if="project" ref="frame" class="yard">
    <header>
      <RouterLink class="act quiet" :to="{ name: 'boards', params: { project: pk } }">{{
        $t("Leave it")
      }}</RouterLink>
      <b>{{ mark }}</b>
      <span class="soft">{{ $t("{step} of {steps}", { step: step + 1, steps }) }}</span>
    </header>
    <div class="pulled" :style="{ width: `${((step + 1) / steps) * 100}%` }" />
    <section v-if="step === 0" class="ask">
      <h1>{{ $t("What is it?") }}</h1>
      <div class="chips">
        <ElButton
          v-for="w in woods"
          :key="w"
          class="act"
          :class="{ on: w === q.species }"
          @click="q = { ...q, species: w }"
        >
          {{ w }}
        </ElButton>
      </div>
      <WoodField
        class="other"
        :label="$t('Another wood')"
        :placeholder="$t('find or type it')"
        :model-value="woods.includes(q.species) ? '' : q.species"
        @update:model-value="$event && (q = { ...q, species: $event })"
      />
      <h2>{{ $t("Sold as") }}</h2>
      <div class="chips">
        <ElButton
          v-for="k in QUARTERS"
          :key="k"
          class="act"
          :class="{ on: k === q.quarter }"
          @click="q = { ...q, quarter: k }"
        >
          {{ k }}
        </ElButton>
      </div>
    </section>
    <section v-else-if="asked" class="ask">
      <h1>{{ asked.ask }}</h1>
      <div class="how">
        <WarpSketch v-if="asked.sketch" :kind="asked.sketch" />
        <p class="soft">{{ asked.how }}</p>
      </div>
      <p class="typed" aria-live="polite">
        {{
          typed !== null
            ? show(typed, system, true)
            : q[asked.at] !== null
              ? show(q[asked.at]!, system, true)
              : "…"
        }}
      </p>
      <div v-if="asked.sketch" class="chips">
        <ElButton v-for="g in GAPS" :key="g" class="act" @click="answer(g)">
          {{ g ? show(g, system, isMetric(system)) : $t("none") }}
        </ElButton>
      </div>
      <NumberPad :system="system" @press="pad = pressed(pad, $event)" />
    </section>
    <section v-else-if="step === FIGURES.length + 1" class="ask">
      <h1>{{ $t("Tap its faults") }}</h1>
      <p class="soft">{{ $t("Push the board sideways for the rest of it.") }}</p>
      <div class="chips">
        <ElButton v-for="k in KINDS" :key="k" class="act" :class="{ on: k === kind }" @click="kind = k">
          {{ k.replace("-", " ") }}
        </ElButton>
      </div>
      <div class="picture">
        <BoardDrawing
          v-if="sofar"
          :board="sofar.board"
          :scale="scale"
          :system="system"
          :chosen-defect="chosen"
          @place="tap"
          @defect="chosen = $event"
        />
      </div>
      <div class="chips">
        <ElButton class="act" :class="{ on: through }" @click="through = !through">{{
          $t("on both faces")
        }}</ElButton>
        <template v-if="chosen >= 0"
          ><ElButton
            v-for="[how, word] in [
              ['left', '←'],
              ['right', '→'],
              ['up', '↑'],
              ['down', '↓'],
              ['larger', '+'],
              ['smaller', '−'],
            ] as const"
            :key="how"
            class="act"
            :aria-label="how"
            @click="nudge(how)"
          >
            {{ word }}</ElButton
          ><ElButton class="act" @click="drop">{{ $t("Rub it out") }}</ElButton></template
        >
      </div>
    </section>
    <section v-else class="ask">
      <h1>{{ mark }}: {{ show(q.length!, system) }} × {{ show(q.near!, system, true) }}</h1>
      <div v-if="look" class="figures">
        <div v-for="c in look.cuts" :key="c.name">
          <span class="figure">{{ showAbout(c.flat, system) }}</span><span class="label">{{
            $t("flat, {name}", { name: c.name })
          }}</span>
        </div>
        <div>
          <span class="figure">{{ woodFigure(look.board_feet, system) }}</span><span class="label">{{
            woodUnit(system)
          }}</span>
        </div>
      </div>
      <p v-if="look">{{ look.advice }}</p>
      <p v-for="c in sofar?.cautions ?? []" :key="c" class="note">{{ c }}</p>
      <p class="typed">
        {{ pad.digits ? $t("price {digits}", { digits: pad.digits }) : $t("price? nothing if owned") }}
      </p>
      <NumberPad system="mm" @press="pad = pressed(pad, $event)" />
    </section>
    <footer>
      <ElButton class="act" :disabled="step === 0" @click="back">{{ $t("Back") }}</ElButton>
      <ElButton v-if="asked && !asked.must" class="act" @click="answer(null)">{{
        $t("Not measured")
      }}</ElButton>
      <ElButton v-if="step < steps - 1" class="act lead" @click="next">{{ $t("Next") }}</ElButton>
      <ElButton v-else class="act lead" @click="put">{{ $t("Put it in the rack") }}</ElButton>
    </footer>
  </main>
</template>

<style scoped>
.other {
  margin: 0.7rem 0;
  max-width: 22rem;
}
.yard {
  max-width: 520px;
  min-height: 100dvh;
  margin: 0 auto;
  padding: 0 12px;
  display: flex;
  flex-direction: column;
}
header {
  display: flex;
  align-items: center;
  justify-content: space-between;
  min-height: 52px;
}
.pulled {
  height: 12px;
  background: repeating-linear-gradient(90deg, var(--tape) 0 14px, var(--tape-deep) 14px 16px);
  border-right: 6px solid var(--steel);
}
.ask {
  flex: 1;
  display: flex;
  flex-direction: column;
  gap: 0.7rem;
  padding: 0.9rem 0;
}
.how {
  display: flex;
  gap: 0.8rem;
  align-items: center;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.typed {
  font-size: 2.4rem;
  font-weight: 740;
  font-stretch: 85%;
  min-height: 3rem;
  margin-top: auto;
}
.picture {
  overflow-x: auto;
  background: var(--paper);
  border: 2px solid var(--ink);
  padding: 12px 0;
}
footer {
  position: sticky;
  bottom: 0;
  display: flex;
  gap: 8px;
  padding: 10px 0 14px;
  background: var(--plaster);
}
footer .act {
  flex: 1;
  min-height: 56px;
  font-size: 1.05rem;
}
</style>

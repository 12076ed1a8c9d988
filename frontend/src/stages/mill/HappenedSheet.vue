<script setup lang="ts">
/** Something happened to a piece: a fault came to light, it was spoiled, or it measures otherwise. */
import { I18nT } from "vue-i18n";
import { ElButton, ElInput, ElSegmented } from "element-plus";
import { computed, ref, watch } from "vue";
import { useHappenings, usePieces, type Happening, type Told } from "../../api/log";
import { SOUND, UNSOUND } from "../../board/geometry";
import AppDialog from "../../controls/AppDialog.vue";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import Fig from "../../controls/Fig.vue";
import { useProject } from "../../api/project";
import Len from "../../controls/Len.vue";
import MeasureField from "../../controls/MeasureField.vue";
import { withErrorToast } from "../../controls/withErrorToast";
import { isMetric, TICKS_PER_INCH, TICKS_PER_MM, type System } from "../../measure";
import { without } from "../list/grid";
import PiecePicture from "./PiecePicture.vue";
import { t } from "../../i18n/i18n";

const props = defineProps<{
  project: number;
  layout: number;
  system: System;
  /** The pieces of the step in hand come first. */
  marks: string[];
  /** What was just read of the piece, where a reading stopped the work. */
  read?: { what: "thickness" | "width" | "length"; value: number };
}>();
const open = defineModel<boolean>({ required: true });
const emit = defineEmits<{ replan: [] }>();

const { data: pieces } = usePieces(computed(() => (open.value ? props.layout : undefined)));
const { project: list, edit } = useProject();
const { tell } = useHappenings(computed(() => props.project));

type Kind = Happening["kind"];
const KINDS: { value: Kind; label: string }[] = [
  { value: "found", label: t("A fault came to light") },
  { value: "spoiled", label: t("It was spoiled") },
  { value: "measured", label: t("It measures otherwise") },
];
const WHYS = ["split", "tear-out", "cut short", "too thin", "dropped", "burnt", "glued wrong"] as const;
const THENS = [
  ["stock", t("What is left may serve for something else")],
  ["scrap", t("Scrap: nothing of it can be used")],
] as const;
const FACES = [
  ["both", t("through it, or not known")],
  ["A", t("face A")],
  ["B", t("face B")],
] as const;
const SIZES = [
  ["thickness", "thickness"],
  ["width", "width"],
  ["length", "length"],
  ["bow", t("bow, under its middle")],
  ["cup", t("cup, under its middle")],
  ["twist", t("twist, under its far corner")],
  ["crook", t("crook, datum edge hollow")],
] as const;
/** Of warp nought is a reading too, and it may stand the other way. */
const isSize = computed(() => ["thickness", "width", "length"].includes(what.value));

const narrow = window.matchMedia("(max-width: 640px)").matches;
const mark = ref("");
const kind = ref<Kind>("found");
const fault = ref("metal");
const face = ref<"A" | "B" | "both">("both");
const at = ref<{ x: number; y: number } | null>(null);
const long = ref(TICKS_PER_INCH);
const wide = ref(TICKS_PER_INCH / 2);
const why = ref<string>("split");
const then = ref<"stock" | "scrap">("stock");
const what = ref<(typeof SIZES)[number][0]>("thickness");
const value = ref<number | null>(null);
const note = ref("");
const told = ref<Told>();
/** It was to be written: what is missing stands out. */
const asked = ref(false);
/** It is kept here until the server answers again. */
const waits = ref(false);

const piece = computed(() => pieces.value?.find((p) => p.mark === mark.value));
const choices = computed(() => {
  const there = pieces.value ?? [];
  const first = there.filter((p) => props.marks.includes(p.mark));
  const others = there.filter((p) => !props.marks.includes(p.mark));
  const cut = others.filter((p) => p.state !== "rack");
  const whole = others.filter((p) => p.state === "rack");
  return [...first, ...cut, ...whole].map(
    (p) => [p.mark, p.names.length ? `${p.mark}: ${p.names.join(", ")}` : p.mark] as const,
  );
});
watch(
  [open, choices],
  ([now]) => {
    if (!now) return;
    if (!choices.value.some(([m]) => m === mark.value)) mark.value = choices.value[0]?.[0] ?? "";
  },
  { immediate: true },
);
watch(mark, () => (at.value = null));
function begin(): void {
  told.value = undefined;
  asked.value = false;
  waits.value = false;
  at.value = null;
  kind.value = props.read ? "measured" : "found";
  what.value = props.read?.what ?? "thickness";
  value.value = props.read?.value ?? null;
  note.value = "";
}
watch(open, (now) => now && begin());

/** A thumb shows a place to a quarter inch, or to half a centimetre; figures make it exact. */
function tapped(x: number, y: number): void {
  const step = isMetric(props.system) ? 5 * TICKS_PER_MM : TICKS_PER_INCH / 4;
  at.value = { x: Math.round(x / step) * step, y: Math.round(y / step) * step };
}
const box = computed(() => {
  if (!at.value) return null;
  const { x, y } = at.value;
  return {
    x0: Math.round(x - long.value / 2),
    x1: Math.round(x + long.value / 2),
    y0: Math.round(y - wide.value / 2),
    y1: Math.round(y + wide.value / 2),
  };
});
const lacks = computed(() => {
  if (!pieces.value) return t("The pieces are being read.");
  if (!piece.value) return t("Choose the piece.");
  if (kind.value === "found" && !at.value) return t("Tap the piece where the fault is.");
  if (kind.value === "measured" && (value.value === null || (isSize.value && !value.value)))
    return t("Type what it measures.");
  return "";
});
const event = computed<Happening | null>(() => {
  const said = { piece: mark.value, note: note.value };
  if (lacks.value) return null;
  if (kind.value === "spoiled") return { kind: "spoiled", ...said, why: why.value, then: then.value };
  if (kind.value === "measured") return { kind: "measured", ...said, what: what.value, value: value.value! };
  const defect = { kind: fault.value, face: face.value, ...box.value! };
  return { kind: "found", ...said, defect: { ...defect, shape: "rectangle", points: [], severity: "plain" } };
});
async function write(): Promise<void> {
  const said = event.value;
  asked.value = true;
  if (!said) return;
  await withErrorToast(async () => {
    told.value = (await tell.mutateAsync({ layout: props.layout, event: said })) ?? undefined;
    waits.value = !told.value;
  });
}
/** It serves as it is. */
async function accept(): Promise<void> {
  await withErrorToast(async () => {
    const event = { kind: "accepted", piece: mark.value, note: "" } as const;
    told.value = (await tell.mutateAsync({ layout: props.layout, event })) ?? undefined;
    waits.value = !told.value;
  });
}
/** The parts it is for become as small as it is, and with them their fellows. */
async function bringFellows(): Promise<void> {
  const short = told.value?.short ?? [];
  const parts = (list.value?.parts ?? []).filter((p) => short.some((s) => s.part === p.id));
  const kept = await edit({
    label: t("as small as {piece}: {parts}", {
      piece: mark.value,
      parts: [...new Set(short.map((s) => s.name))].join(", "),
    }),
    put_parts: parts.map((part) => {
      const mine = short.filter((s) => s.part === part.id);
      const small = Object.fromEntries(mine.map((s) => [s.what, s.there]));
      return mine.reduce((q, s) => without(q, s.what), { ...part, ...small, was: part.id });
    }),
  });
  if (kept) plan();
}
function plan(): void {
  open.value = false;
  emit("replan");
}
</script>

<template>
  <AppDialog v-model="open" :title="$t('Something happened')" width="720px" top="4vh">
    <div v-if="told" class="told" role="status">
      <p>
        <I18nT keypath="{told}, and it is in the log." scope="global"
          ><template #told
            ><b><Fig :text="told.says" /></b></template
        ></I18nT>
      </p>
      <p v-if="told.fits">{{ $t("The piece still fits what it is for. Go on with it.") }}</p>
      <template v-else>
        <p>
          {{ $t("It does not fit what it was for any more.") }}
          <template v-if="told.serves.length">{{
            $t("It would still make: {serves}.", { serves: told.serves.join(", ") })
          }}</template>
          <template v-else>{{ $t("No part of the list comes out of it.") }}</template>
        </p>
        <p v-for="s in told.short" :key="`${s.part} ${s.what}`">
          <I18nT keypath="{part} wants {wanted} of {dimension}; here are {there}." scope="global"
            ><template #part>{{ s.name }}</template
            ><template #wanted><Len :ticks="s.wanted" :system="system" nearest /></template
            ><template #dimension>{{ s.what }}</template
            ><template #there><Len :ticks="s.there" :system="system" nearest /></template
          ></I18nT>
        </p>
        <p>
          {{
            $t(
              "Plan the rest again: what is done stands, pieces in work keep what they are for, and what is missing is laid out on the wood there is.",
            )
          }}
        </p>
      </template>
    </div>
    <p v-else-if="waits" class="told" role="status">
      {{
        $t(
          "The server does not answer. It is kept in this browser, and sent when it answers again; what the piece still serves for is told then, under Mill.",
        )
      }}
    </p>
    <form v-else class="sheet" @submit.prevent="write">
      <ChoiceField v-model="mark" :label="$t('Which piece')" :options="choices" />
      <p v-if="piece" class="soft size">
        <Len :ticks="piece.length" :system="system" nearest /> ×
        <Len :ticks="piece.width" :system="system" nearest /> ×
        <Len :ticks="piece.thickness" :system="system" nearest />{{
          $t(", from {board}", { board: piece.board })
        }}
      </p>
      <ElSegmented
        v-model="kind"
        :options="KINDS"
        :aria-label="$t('What happened')"
        :direction="narrow ? 'vertical' : 'horizontal'"
        block
      />
      <template v-if="kind === 'found'">
        <PiecePicture v-if="piece" :piece="piece" :mark="box" @tapped="tapped" />
        <div class="row">
          <ChoiceField
            v-model="fault"
            :label="$t('Fault')"
            :groups="[
              { label: 'unsound', options: UNSOUND.map((k) => [k, k]) },
              { label: $t('sound'), options: SOUND.map((k) => [k, k]) },
            ]"
          />
          <ChoiceField v-model="face" :label="$t('Where it shows')" :options="FACES" />
        </div>
        <div class="row">
          <MeasureField
            :model-value="at?.x ?? null"
            :system="system"
            :label="$t('From the datum end')"
            @update:model-value="at = { x: $event, y: at?.y ?? (piece?.width ?? 0) / 2 }"
          />
          <MeasureField
            :model-value="at?.y ?? null"
            :system="system"
            :label="$t('From the datum edge')"
            @update:model-value="at = { x: at?.x ?? (piece?.length ?? 0) / 2, y: $event }"
          />
          <MeasureField v-model="long" :system="system" :label="$t('Long')" />
          <MeasureField v-model="wide" :system="system" :label="$t('Wide')" />
        </div>
      </template>
      <div v-else-if="kind === 'spoiled'" class="row">
        <ChoiceField v-model="why" :label="$t('How')" :options="WHYS.map((w) => [w, w] as const)" />
        <ChoiceField v-model="then" :label="$t('What becomes of it')" :options="THENS" />
      </div>
      <div v-else class="row">
        <ChoiceField v-model="what" :label="$t('Its')" :options="SIZES" />
        <MeasureField v-model="value" :system="system" :label="$t('measures')" :signed="!isSize" />
      </div>
      <label class="field"
        ><span>{{ $t("Note") }}</span
        ><ElInput v-model="note" maxlength="2000" :placeholder="$t('what you saw')"
      /></label>
    </form>
    <template #footer>
      <div v-if="told" class="foot">
        <ElButton class="act" @click="open = false">{{ $t("Later") }}</ElButton>
        <template v-if="!told.fits">
          <ElButton class="act" @click="accept">{{ $t("It serves as it is") }}</ElButton>
          <ElButton v-if="told.short.length" class="act" @click="bringFellows">
            {{ $t("Make its fellows as small") }}
          </ElButton>
          <ElButton class="act lead" @click="plan">{{ $t("Plan the rest again") }}</ElButton>
        </template>
        <ElButton v-else class="act lead" @click="open = false">{{ $t("Go on") }}</ElButton>
      </div>
      <div v-else-if="waits" class="foot">
        <ElButton class="act lead" @click="open = false">{{ $t("Go on") }}</ElButton>
      </div>
      <div v-else class="foot">
        <span class="lacks" :class="asked ? 'bang' : 'soft'" role="status">{{ lacks }}</span>
        <ElButton class="act" @click="open = false">{{ $t("Cancel") }}</ElButton>
        <ElButton class="act lead" :disabled="tell.isPending.value" @click="write">
          {{ $t("Write it in the log") }}
        </ElButton>
      </div>
    </template>
  </AppDialog>
</template>

<style scoped>
.sheet {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.9rem;
}
.size {
  margin: -0.6rem 0 0;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem 1.2rem;
}
.row > * {
  flex: 1 1 9rem;
}
.foot {
  display: flex;
  flex-wrap: wrap;
  gap: 0.7rem;
  align-items: center;
  justify-content: flex-end;
}
.told {
  font-size: 1.1rem;
}
.told p {
  margin: 0 0 0.7rem;
}
.lacks {
  margin-right: auto;
}
.bang {
  color: var(--crayon-ink);
  font-weight: 620;
}
/* What is missing has a line of its own, there or not: a button that is pressed stays where it is. */
@media (max-width: 640px) {
  .lacks {
    flex: 1 0 100%;
    min-height: 1.5em;
  }
}
</style>

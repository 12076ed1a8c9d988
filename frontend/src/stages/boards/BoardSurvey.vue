<script setup lang="ts">
/**
 * What is in a board before any cut: tried cuts, a wanted thickness, what is clear, and the grade
 * it makes.
 */
import { I18nT } from "vue-i18n";
import { ElCheckbox, ElSlider } from "element-plus";
import { keepPreviousData, useQuery } from "@tanstack/vue-query";
import { computed, ref, watch } from "vue";
import { api, type Board, type Schemas } from "../../api/client";
import { useProject } from "../../api/project";
import BoardDrawing from "../../board/BoardDrawing.vue";
import DepthLayer from "../../board/DepthLayer.vue";
import Fig from "../../controls/Fig.vue";
import Len from "../../controls/Len.vue";
import MeasureField from "../../controls/MeasureField.vue";
import { isMetric, TICKS_PER_INCH, TICKS_PER_MM, TICKS_PER_64TH } from "../../measure";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import { wood, woodPrice } from "../../wood";
import { t } from "../../i18n/i18n";

const props = defineProps<{ board: Board; width: number; look?: Schemas["LookBody"] }>();
const { pk, project } = useProject();
const system = computed(() => project.value!.system);
const scale = computed(() => Math.min(26, (props.width - 14) / (props.board.length / TICKS_PER_INCH)));
const step = computed(() => (isMetric(system.value) ? 10 * TICKS_PER_MM : TICKS_PER_INCH / 2));

const cut = ref(0);
const wanted = ref<number | null>(null);
const quality = ref<"clear-two" | "clear-one" | "sound">("clear-two");
const clear = ref(false);
const depths = ref(false);
watch(
  () => props.board.id,
  () => (cut.value = 0),
);
/** The thickness most of the list asks for is the likeliest question. */
const usual = computed(() => {
  const counts = new Map<number, number>();
  for (const p of project.value!.parts)
    if (p.species === props.board.species)
      counts.set(p.thickness, (counts.get(p.thickness) ?? 0) + p.quantity);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
});
const asked = computed(
  () => wanted.value ?? (usual.value && usual.value + project.value!.shop.allowance.face),
);

const { data: tried } = useQuery({
  queryKey: computed(() => ["cuts", pk.value, JSON.stringify(props.board), cut.value]),
  queryFn: async () =>
    (
      await api.POST("/api/projects/{project}/cuts", {
        params: { path: { project: pk.value } },
        body: { board: props.board, places: cut.value ? [cut.value] : [] },
      })
    ).data!.pieces,
  placeholderData: keepPreviousData,
  gcTime: 10_000,
});
const { data, error } = useQuery({
  queryKey: computed(() => ["survey", pk.value, JSON.stringify(props.board), asked.value, quality.value]),
  queryFn: async () =>
    (
      await api.POST("/api/projects/{project}/survey", {
        params: { path: { project: pk.value } },
        body: { board: props.board, wanted: asked.value, quality: quality.value },
      })
    ).data!,
  placeholderData: keepPreviousData,
  gcTime: 10_000,
});
// ---- moisture: how long to wait -----------------------------------------------------------------
const resting = computed(() => {
  const r = data.value?.rest;
  if (!r) return "";

  const air = t("the {equilibrium} % that the shop's air brings wood to", {
    equilibrium: r.equilibrium.toFixed(1),
  });
  const points = { away: Math.abs(r.away).toFixed(1), air };
  const away = r.away < 0 ? t("{away} points under {air}", points) : t("{away} points over {air}", points);
  const days = (n: number) => t("{n} day | {n} days", Math.max(1, Math.ceil(n)));
  const said: string[] = [];
  if (r.days === 0) said.push(t("It has come to rest: it is {away}.", { away }));
  else {
    said.push(
      r.work_now ? t("It may be worked: it is {away}.", { away }) : t("Let it rest: it is {away}.", { away }),
    );
    if (!r.work_now && r.workable)
      said.push(t("In about {days} it is within two points.", { days: days(r.workable) }));
    said.push(
      t("It comes to rest in about {days}, {least} to {most} ({sure}).", {
        days: days(r.days),
        least: Math.max(1, Math.floor(r.least)),
        most: Math.ceil(r.most),
        sure: r.own
          ? t("by its own two readings")
          : t("by diffusion through its thickness; a second reading in a week makes it surer"),
      }),
    );
  }
  if (r.uneven > 2)
    said.push(
      t("Its places lie {uneven} points apart: wait until they agree.", { uneven: r.uneven.toFixed(1) }),
    );
  return said.join(" ");
});

const FACES = ["A", "B"] as const;
const GRADES = ["FAS", "FAS one face", "Selects", "No. 1 Common", "No. 2A Common", "No. 3A Common", ""];
/** Whether the faults recorded leave it short of the grade it was sold as. */
const isShort = computed(() => GRADES.indexOf(data.value?.grade ?? "") > GRADES.indexOf(props.board.grade));
/** What its clear wood costs, beside what the board costs. */
const worth = computed(() => {
  const feet = data.value?.clear_feet ?? 0;
  if (!props.board.price || feet < 0.05 || !props.look) return "";
  const clear = woodPrice(props.board.price / feet, system.value);
  const ticket = woodPrice(props.board.price / props.look.ticket_feet, system.value);
  return t("{feet} of it lie in these rectangles: {clear}, where the ticket says {ticket}.", {
    feet: wood(feet, system.value),
    clear,
    ticket,
  });
});

/**
 * What one corner needs beyond the others is wind, and comes off by hand first; what all four need
 * is bow.
 */
const corners = computed(() =>
  (tried.value ?? []).map((p) => {
    const words = [
      t("near datum corner"),
      t("far datum corner"),
      t("near other corner"),
      t("far other corner"),
    ];
    const most = Math.max(...p.corners);
    const takes = most - Math.min(...p.corners);
    return takes > TICKS_PER_64TH ? { word: words[p.corners.indexOf(most)]!, takes, saved: p.saved } : null;
  }),
);
const QUALITIES = [
  ["clear-two", t("clear on two faces")],
  ["clear-one", t("clear on one face")],
  ["sound", t("sound")],
] as const;
</script>

<template>
  <div v-if="project" class="survey">
    <h3>{{ $t("Before you cut it") }}</h3>
    <p v-if="error" class="note">{{ error.message }}</p>
    <BoardDrawing
      :board="board"
      :scale="scale"
      :system="system"
      :areas="clear ? (data?.areas ?? []) : []"
      :cut="cut"
      @place="cut = Math.round(Math.min(Math.max(0, $event.x), board.length) / step) * step"
    />
    <ElSlider
      v-model="cut"
      class="slide"
      :min="0"
      :max="board.length"
      :step="step"
      :show-tooltip="false"
      :aria-label="$t('Crosscut tried at')"
    />
    <div class="pieces">
      <p v-if="!cut" class="soft">{{ $t("Drag, or tap the board, to try a crosscut.") }}</p>
      <div v-for="(p, i) in tried ?? []" :key="i" class="piece">
        <span class="figure"><Len :ticks="p.flat" :system="system" about /></span>
        <span class="label"
          ><I18nT keypath="flat in {length}" scope="global"
            ><template #length><Len :ticks="p.x1 - p.x0" :system="system" about /></template></I18nT
        ></span>
        <span v-if="corners[i]" class="label"
          ><I18nT
            :keypath="
              corners[i]!.saved > TICKS_PER_64TH
                ? 'knock {height} off its {corner} first, or shim it so: saves {saved} against facing it as it lies'
                : 'knock {height} off its {corner} first, or shim it so'
            "
            scope="global"
            ><template #height><Len :ticks="corners[i]!.takes" :system="system" about /></template
            ><template #corner>{{ corners[i]!.word }}</template
            ><template #saved><Len :ticks="corners[i]!.saved" :system="system" about /></template></I18nT
        ></span>
      </div>
    </div>
    <ElCheckbox v-model="depths">{{ $t("Show what has to come off each face") }}</ElCheckbox>
    <div v-if="depths && tried" class="depths">
      <div v-for="f in FACES" :key="f">
        <p class="label">
          <I18nT keypath="Face {face}: at most {depth}. The darker, the more comes off there." scope="global"
            ><template #face>{{ f }}</template
            ><template #depth
              ><Len
                :ticks="Math.max(...tried.map((p) => (f === 'A' ? p.takes_above : p.takes_below)))"
                :system="system"
                nearest /></template
          ></I18nT>
        </p>
        <BoardDrawing :board="board" :scale="scale" :system="system" :face="f" :photographed="false"
          ><template #default="{ x, y }"
            ><DepthLayer :pieces="tried" :face="f" :x="x" :y="y" :system="system" /></template
        ></BoardDrawing>
      </div>
    </div>
    <div class="asks">
      <MeasureField
        class="want"
        :label="$t('For a flat thickness of')"
        :system="system"
        :model-value="asked"
        @update:model-value="wanted = $event"
      />
      <p v-if="data?.said" class="said"><Fig :text="data.said" /></p>
    </div>
    <div class="asks">
      <ElCheckbox v-model="clear">{{ $t("Show the largest") }}</ElCheckbox>
      <ChoiceField
        v-model="quality"
        class="quality"
        :label="$t('Quality looked for')"
        hide-label
        :options="QUALITIES"
      />
      <p v-if="data">
        <template v-if="data.areas.length"
          >{{ $t("rectangles:") }}
          <span v-for="(a, i) in data.areas" :key="i"
            ><Len :ticks="a.x1 - a.x0" :system="system" bare about /> ×
            <Len :ticks="a.y1 - a.y0" :system="system" about />{{
              i < data.areas.length - 1 ? ", " : ". "
            }}</span
          ></template
        >
        <template v-else>{{ $t(": nothing long enough for the machines.") + " " }} </template>
        <template v-if="data.grade"
          ><I18nT
            :keypath="
              data.about
                ? 'Its cuttings make at least about {grade}: {share} % clear, surface measure {surface}.'
                : 'Its cuttings make at least {grade}: {share} % clear, surface measure {surface}.'
            "
            scope="global"
            ><template #grade
              ><b>{{ data.grade }}</b></template
            ><template #share>{{ Math.round(data.share * 100) }}</template
            ><template #surface>{{ data.surface }}</template></I18nT
          ><template v-if="data.about">
            {{
              " " + $t("The rules also limit wane, splits, pith and knots by more than a survey tells.")
            }}</template
          ></template
        >
        <template v-else>{{ $t("Its cuttings make no grade.") }}</template>
        <template v-if="board.grade">
          {{ " "
          }}<I18nT
            :keypath="
              isShort
                ? 'Sold as {grade}: the faults recorded leave it short of that.'
                : 'Sold as {grade}: it keeps what was promised.'
            "
            scope="global"
            ><template #grade
              ><b>{{ board.grade }}</b></template
            ></I18nT
          >
          <template v-if="isShort">{{
            " " + $t("Cuttings are taken largest first, so count again before you complain.")
          }}</template></template
        >
        <template v-if="worth">{{ " " + worth }}</template>
      </p>
    </div>
    <div class="asks">
      <p v-if="resting" class="said">
        {{ resting }}
        <template v-if="data?.rest?.shrinks && data.rest.days"
          ><I18nT
            :keypath="
              data.rest.away > 0
                ? 'Until then it shrinks in width by {quarter} (quarter-sawn) to {flat} (flat-sawn).'
                : 'Until then it swells in width by {quarter} (quarter-sawn) to {flat} (flat-sawn).'
            "
            scope="global"
            ><template #quarter
              ><Len :ticks="Math.abs(data.rest.shrinks[0]!)" :system="system" bare nearest /></template
            ><template #flat
              ><Len :ticks="Math.abs(data.rest.shrinks[1]!)" :system="system" nearest /></template></I18nT
          >{{ " "
          }}<template v-if="!data.rest.coefficients_hold">{{
            $t("That is about: it lies outside the 6 to 14 % for which movement was measured.")
          }}</template></template
        >
      </p>
    </div>
  </div>
</template>

<style scoped>
.survey {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
  border-top: 2px solid var(--ink);
  padding-top: 0.8rem;
  max-width: 100%;
  overflow: hidden;
}
.slide input {
  width: 100%;
  min-height: 44px;
  accent-color: var(--crayon);
}
.pieces,
.asks {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1.6rem;
  align-items: center;
}
.piece {
  display: flex;
  flex-direction: column;
  gap: 0.2rem;
  max-width: 22rem;
}
.want {
  width: 11rem;
}
.said {
  flex: 1 1 20rem;
  font-weight: 560;
}
.depths {
  display: flex;
  flex-direction: column;
  gap: 0.5rem;
}
.tick {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
  min-height: 44px;
}
.tick input {
  width: 18px;
  height: 18px;
  accent-color: var(--chalk);
}
.quality {
  width: 13rem !important;
}
</style>

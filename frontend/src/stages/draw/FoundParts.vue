<script setup lang="ts">
/** What was found in a drawing: questions first, then the parts, to be put on the list. */
import { useQueryClient } from "@tanstack/vue-query";
import { ElButton, ElCollapse, ElCollapseItem, ElMessage } from "element-plus";
import "element-plus/es/components/collapse/style/css";
import "element-plus/es/components/collapse-item/style/css";
import { computed, ref, watch } from "vue";
import { api, type Drawing, type Found, type Reading, type Schemas } from "../../api/client";
import { partFrom, partsFrom } from "../../api/parts";
import { useProject } from "../../api/project";
import Hint from "../../controls/Hint.vue";
import Len from "../../controls/Len.vue";
import MeasureField from "../../controls/MeasureField.vue";
import { withErrorToast } from "../../controls/withErrorToast";
import { DOUBTS } from "./takeoff";
import WoodField from "../../controls/fields/WoodField.vue";
import { t } from "../../i18n/i18n";

const props = defineProps<{ drawing: Drawing; reading: Reading; chosen: Set<string> }>();
const emit = defineEmits<{ choose: [Found]; point: [string[]] }>();
const { pk, project, edit } = useProject();
const client = useQueryClient();

const species = ref("");
const wood = computed(() => species.value || project.value?.parts.at(-1)?.species || "white oak");
const thickness = ref<number | null>(null);
const left = ref(new Set<string>());
watch(
  () => props.drawing.pk,
  () => (left.value = new Set()),
);
const unlisted = computed(() =>
  props.reading.parts.filter((f) => !partFrom(project.value!, props.drawing.pk, f.key)),
);
const wanted = computed(() => unlisted.value.filter((f) => !left.value.has(f.key)));
const thin = computed(() => wanted.value.filter((f) => !f.thickness));
/** What has no thickness yet is asked for at once. */
const unfolded = ref(["troubles", "asked", "decided", ...(thin.value.length ? ["layers"] : [])]);
const layered = computed(() => props.reading.layers.filter((l) => l));

const UNITS: [Schemas["ReadingBody"]["unit"], string][] = [
  ["mm", "millimetres"],
  ["cm", "centimetres"],
  ["m", "metres"],
  ["in", "inches"],
  ["ft", "feet"],
];

async function answer(values: Partial<Schemas["AnswersBody"]>): Promise<void> {
  await withErrorToast(async () => {
    const { data: waiting } = await api.PUT("/api/drawings/{drawing}/answers", {
      params: { path: { drawing: props.drawing.pk } },
      body: { ...props.reading.answers, ...values },
    });
    // It is read anew: what was read before must not be shown for it.
    client.setQueryData<Drawing[]>(["drawings", pk.value], (now) =>
      now?.map((d) => (d.pk === waiting!.pk ? waiting! : d)),
    );
    client.removeQueries({ queryKey: ["reading", props.drawing.pk] });
    await client.invalidateQueries({ queryKey: ["drawings", pk.value] });
  });
}
function meaning(layer: string): Schemas["MeaningBody"] {
  return props.reading.answers.layers?.[layer] ?? { species: "", thickness: 0, ignore: false };
}
function means(layer: string, values: Partial<Schemas["MeaningBody"]>): void {
  void answer({ layers: { ...props.reading.answers.layers, [layer]: { ...meaning(layer), ...values } } });
}
/** Decide otherwise, or again as it was; the drawing is read anew with that. */
function turn(decision: Schemas["DecisionBody"]): void {
  const others = (props.reading.answers.turned ?? []).filter((key) => key !== decision.key);
  void answer({ turned: decision.turned ? others : [...others, decision.key] });
}
/** Decisions about what was taken for a part, and about what was not. */
const asked = computed(() => props.reading.decisions.filter((d) => DOUBTS.has(d.kind)));
const decided = computed(() => props.reading.decisions.filter((d) => !DOUBTS.has(d.kind)));
const doubtful = computed(() => new Set(asked.value.flatMap((d) => d.refs)));
const things = computed(() => (props.reading.kind === "model" ? "bodies" : "shapes"));
const pieces = computed(() => props.reading.parts.reduce((n, f) => n + f.refs.length, 0));
function toggle(f: Found): void {
  const now = new Set(left.value);
  if (!now.delete(f.key)) now.add(f.key);
  left.value = now;
}
function put(): void {
  if (thin.value.length && !thickness.value) {
    ElMessage({
      type: "error",
      message: t("The {thin} drawn flat still need a thickness, here or by their layer", {
        thin: thin.value.length,
      }),
    });
    return;
  }
  const parts = partsFrom(project.value!, props.drawing.pk, wanted.value, wood.value, thickness.value ?? 0);
  void edit({
    label: t("{parts} parts from {name}", { parts: parts.length, name: props.drawing.name }),
    put_parts: parts,
  });
}
</script>

<template>
  <div v-if="project" class="found">
    <div v-if="reading.asks" class="ask">
      <b>{{ reading.asks }}</b>
      <div class="row">
        <ElButton
          v-for="[unit, word] in UNITS"
          :key="unit"
          class="act"
          :class="{ lead: unit === reading.unit }"
          @click="answer({ unit })"
        >
          {{ word }}
        </ElButton>
      </div>
    </div>
    <ElCollapse v-if="reading.troubles.length" v-model="unfolded" class="note-list"
      ><ElCollapseItem name="troubles"
        ><template #title
          ><span>{{ $t("{troubles} to look at", { troubles: reading.troubles.length }) }}</span></template
        >
        <p v-for="trouble in reading.troubles" :key="trouble" class="note">{{ trouble }}</p>
      </ElCollapseItem></ElCollapse
    >
    <p v-if="!decided.length && !asked.length" class="soft">
      {{
        pieces === reading.pieces
          ? $t("All {pieces} {things} in it are parts.", { pieces, things })
          : $t("{parts} of {pieces} {things} in it are parts.", {
              parts: pieces,
              pieces: reading.pieces,
              things,
            })
      }}
    </p>
    <ElCollapse v-if="asked.length" v-model="unfolded" class="asked"
      ><ElCollapseItem name="asked"
        ><template #title
          ><span>{{ $t("{asked} doubtful", { asked: asked.length }) }}</span></template
        >
        <div
          v-for="d in asked"
          :key="d.key"
          class="decision"
          :class="{ turned: d.turned }"
          :data-decision="d.kind"
        >
          <button class="told" @click="emit('point', d.refs)">
            <i class="mark-doubt" aria-hidden="true">?</i> {{ d.what
            }}<b v-if="d.turned">{{ $t(": turned round, {turn}", { turn: d.turn.toLowerCase() }) }}</b>
          </button>
          <ElButton v-if="d.turn" class="act" @click="turn(d)">{{
            d.turned ? $t("As it was") : d.turn
          }}</ElButton>
        </div>
      </ElCollapseItem></ElCollapse
    >
    <ElCollapse v-if="decided.length" v-model="unfolded" class="decided"
      ><ElCollapseItem name="decided"
        ><template #title
          ><span>{{
            $t("{parts} of {pieces} {things} are parts; what was decided of the rest", {
              parts: pieces,
              pieces: reading.pieces,
              things,
            })
          }}</span></template
        >
        <div
          v-for="d in decided"
          :key="d.key"
          class="decision"
          :class="{ turned: d.turned }"
          :data-decision="d.kind"
        >
          <button class="told" :disabled="!d.refs.length" @click="emit('point', d.refs)">
            {{ d.what
            }}<b v-if="d.turned">{{ $t(": turned round, {turn}", { turn: d.turn.toLowerCase() }) }}</b>
          </button>
          <ElButton v-if="d.turn" class="act" @click="turn(d)">{{
            d.turned ? $t("As it was") : d.turn
          }}</ElButton>
        </div>
      </ElCollapseItem></ElCollapse
    >
    <ElCollapse v-if="layered.length" v-model="unfolded" class="layers"
      ><ElCollapseItem name="layers"
        ><template #title
          ><span>{{ $t("Layers: what they are made of") }}</span></template
        >
        <div v-for="l in layered" :key="l" class="layer">
          <span class="layer-name">{{ l }}</span>
          <WoodField
            :label="$t('Wood of layer {l}', { l })"
            hide-label
            :placeholder="$t('wood')"
            :model-value="meaning(l).species"
            @update:model-value="means(l, { species: $event })"
          />
          <MeasureField
            compact
            hide-label
            :label="$t('Thickness of layer {l}', { l })"
            :system="project.system"
            :model-value="meaning(l).thickness || null"
            @update:model-value="means(l, { thickness: $event })"
          />
          <label class="skip"
            ><input
              type="checkbox"
              :checked="meaning(l).ignore"
              @change="means(l, { ignore: ($event.target as HTMLInputElement).checked })"
            />
            {{ $t("no parts") }}</label
          >
        </div>
      </ElCollapseItem></ElCollapse
    >
    <p v-if="!reading.parts.length" class="soft">{{ $t("No parts in it.") }}</p>
    <ul class="parts">
      <li
        v-for="f in reading.parts"
        :key="f.key"
        :class="{ chosen: f.refs.some((r) => chosen.has(r)), out: left.has(f.key) }"
        :data-found="f.key"
      >
        <input
          v-if="!partFrom(project, drawing.pk, f.key)"
          type="checkbox"
          :checked="!left.has(f.key)"
          :aria-label="$t('Take {name}', { name: f.name })"
          @change="toggle(f)"
        />
        <Hint v-else :text="$t('It is on the list')"
          ><span class="on-list" tabindex="0" role="img" :aria-label="$t('on the list')">✓</span></Hint
        >
        <button class="pick" @click="emit('choose', f)">
          <b
            ><i
              v-if="f.refs.some((r) => doubtful.has(r))"
              class="mark-doubt"
              role="img"
              :aria-label="$t('doubtful: see above')"
              >?</i
            >
            {{ f.quantity }} × {{ f.name }}</b
          >
          <span class="size"
            ><Len :ticks="f.length" :system="project.system" bare nearest /> ×
            <Len :ticks="f.width" :system="project.system" bare nearest /> ×
            <Len v-if="f.thickness" :ticks="f.thickness" :system="project.system" nearest /><i v-else>{{
              $t("thickness?")
            }}</i></span
          >
          <span v-if="f.fill < 0.999" class="soft">{{
            $t("fills {fill} % of its box", { fill: Math.round(f.fill * 100) })
          }}</span>
          <span v-if="f.mirrored" class="soft">{{ f.note }}</span>
        </button>
        <RouterLink
          v-if="partFrom(project, drawing.pk, f.key)"
          class="mark"
          :to="{
            name: 'list',
            params: { project: pk },
            query: { part: partFrom(project, drawing.pk, f.key)!.id },
          }"
          >{{ partFrom(project, drawing.pk, f.key)!.id }}</RouterLink
        >
      </li>
    </ul>
    <template v-if="unlisted.length">
      <WoodField v-model="species" :label="$t('Wood where the drawing names none')" :placeholder="wood" />
      <MeasureField
        v-if="thin.length"
        v-model="thickness"
        :label="$t('Thickness of the {thin} drawn flat', { thin: thin.length })"
        :system="project.system"
      />
      <ElButton class="act lead" :disabled="!wanted.length" @click="put">
        {{ $t("Put {wanted} on the list", { wanted: wanted.length }) }}
      </ElButton>
    </template>
    <RouterLink
      v-else-if="reading.parts.length"
      class="act lead"
      :to="{ name: 'list', params: { project: pk } }"
      >{{ $t("All on the list: go there") }}</RouterLink
    >
  </div>
</template>

<style scoped>
.found {
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
}
.ask {
  border-left: 8px solid var(--tape);
  background: var(--paper);
  padding: 0.7rem 0.9rem;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin-top: 0.5rem;
}
.note-list .note {
  margin-bottom: 0.3rem;
}
.decision {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.6rem;
  align-items: center;
  padding: 0.3rem 0;
  border-bottom: 1px solid var(--ink-faint);
}
.mark-doubt {
  display: inline-block;
  min-width: 1.25rem;
  text-align: center;
  font-style: normal;
  font-weight: 800;
  background: var(--tape);
}
.decision.turned {
  box-shadow: inset 5px 0 0 var(--chalk);
  padding-left: 0.7rem;
}
.told {
  flex: 1 1 16rem;
  min-height: 44px;
  border: 0;
  background: none;
  text-align: left;
  cursor: pointer;
}
.told:disabled {
  cursor: default;
  color: inherit;
}
.layer {
  display: grid;
  grid-template-columns: 5rem 1fr 5.4rem auto;
  gap: 0.4rem;
  align-items: center;
}
.layer-name {
  overflow: hidden;
  text-overflow: ellipsis;
  font-weight: 620;
}
.skip {
  white-space: nowrap;
  font-size: 0.85rem;
}
.parts {
  list-style: none;
  margin: 0;
  padding: 0;
  border-top: 2px solid var(--ink);
  max-height: 26rem;
  overflow: auto;
  background: var(--paper);
}
.parts li {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  padding: 0 0.5rem;
  border-bottom: 1px solid var(--ink-faint);
}
.parts li.chosen {
  background: var(--chalk-wash);
  box-shadow: inset 5px 0 0 var(--chalk);
}
.parts li.out {
  opacity: 0.6;
}
.parts input {
  width: 18px;
  height: 18px;
  accent-color: var(--chalk);
}
.on-list {
  color: var(--chalk-ink);
  font-weight: 800;
  width: 18px;
}
.pick {
  flex: 1;
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.9rem;
  min-height: 44px;
  align-items: center;
  border: 0;
  background: none;
  text-align: left;
  cursor: pointer;
}
.size {
  margin-left: auto;
}
.size i {
  color: var(--crayon-ink);
}
.mark {
  font-weight: 760;
}
</style>

<script setup lang="ts">
/**
 * A piece under the cutter, pass by pass: pencil lines across its face vanish where the cutter has
 * been. The right way, or a wrong one.
 */
import { I18nT } from "vue-i18n";
import { ElButton, ElSlider } from "element-plus";
import { useQuery } from "@tanstack/vue-query";
import { computed, ref, watch } from "vue";
import { api, type Schemas, type Step } from "../../api/client";
import Fig from "../../controls/Fig.vue";
import Len from "../../controls/Len.vue";
import type { System } from "../../measure";
import FaceLines from "./FaceLines.vue";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import { t } from "../../i18n/i18n";

const props = defineProps<{ layout: number; steps: Step[]; system: System }>();
const pieces = computed(() => [...new Set(props.steps.filter((s) => s.kind === "face").map((s) => s.piece))]);
const piece = ref(pieces.value[0] ?? "");
const machine = ref<"jointer" | "planer">("jointer");
const down = ref<"" | "A" | "B">("");
const press = ref<"outfeed" | "infeed">("outfeed");
const ask = computed<Schemas["PassesBody"]>(() => ({
  piece: piece.value,
  machine: machine.value,
  down: down.value,
  press: press.value,
  far_end_first: false,
}));
const { data } = useQuery({
  queryKey: computed(() => ["passes", props.layout, ask.value]),
  queryFn: async () =>
    (
      await api.POST("/api/layouts/{layout}/passes", {
        params: { path: { layout: props.layout } },
        body: ask.value,
      })
    ).data!,
  enabled: computed(() => !!piece.value),
  placeholderData: (old) => old,
});
const at = ref(0);
watch(data, (now, old) => {
  if (now && (!old || old.piece !== now.piece || old.says !== now.says)) at.value = 0;
});
const frame = computed(() => data.value?.frames[Math.min(at.value, data.value.frames.length - 1)]);
const last = computed(() => (data.value?.frames.length ?? 1) - 1);
function key(event: KeyboardEvent): void {
  if (event.key === "ArrowRight") at.value = Math.min(last.value, at.value + 1);
  else if (event.key === "ArrowLeft") at.value = Math.max(0, at.value - 1);
  else return;
  event.preventDefault();
}
const MACHINES = [
  ["jointer", "jointer"],
  ["planer", t("planer alone")],
] as const;
const FACES = [
  ["", t("the hollow one")],
  ["A", t("face A")],
  ["B", t("face B")],
] as const;
const PRESSED = [
  ["outfeed", t("over the outfeed table, early")],
  ["infeed", t("over the infeed table, to the end")],
] as const;
</script>

<template>
  <div v-if="pieces.length" class="passes" @keydown="key">
    <div class="choose">
      <ChoiceField v-model="piece" :label="$t('The piece')" :options="pieces.map((p) => [p, p] as const)" />
      <ChoiceField v-model="machine" :label="$t('Through the')" :options="MACHINES" />
      <ChoiceField v-model="down" :label="$t('Face down')" :options="FACES" />
      <ChoiceField v-if="machine === 'jointer'" v-model="press" :label="$t('Pressed')" :options="PRESSED" />
    </div>
    <template v-if="data && frame">
      <FaceLines
        :lines="frame.lines"
        :length="data.length"
        :width="data.width"
        :label="
          $t('Pass {at}: {share} percent of the face is clean', { at, share: Math.round(100 * frame.clean) })
        "
      />
      <p class="soft">
        {{
          $t(
            "The face under the cutter, the datum end at the left. A pencil line is gone where wood has gone.",
          )
        }}
      </p>
      <div class="run" role="group" :aria-label="$t('Passes')">
        <ElButton class="act" :disabled="at === 0" :aria-label="$t('A pass back')" @click="at--">←</ElButton>
        <ElSlider v-model="at" :min="0" :max="last" :aria-label="$t('Pass')" :show-tooltip="false" />
        <ElButton class="act lead more" :disabled="at >= last" @click="at++">{{
          $t("One more pass")
        }}</ElButton>
      </div>
      <div class="figures">
        <div>
          <span class="figure"
            >{{ at }} <small>{{ $t("of {last}", { last }) }}</small></span
          ><span class="label"
            ><I18nT keypath="passes of {depth}" scope="global"
              ><template #depth><Len :ticks="data?.depth ?? 0" :system="system" nearest /></template></I18nT
          ></span>
        </div>
        <div>
          <span class="figure">{{ Math.round(100 * frame.clean) }} %</span
          ><span class="label">{{
            data.enough && at >= data.enough
              ? $t("of the face clean, enough for the planer")
              : $t("of the face clean")
          }}</span>
        </div>
        <div>
          <span class="figure"><Len :ticks="frame.bent" :system="system" about /></span
          ><span class="label">{{ $t("bent along its length") }}</span>
        </div>
        <div>
          <span class="figure"><Len :ticks="Math.max(0, frame.level)" :system="system" about /></span
          ><span class="label">{{ $t("the planer can make of it now") }}</span>
        </div>
        <div>
          <span class="figure"
            ><I18nT keypath="{least} to {most}" scope="global"
              ><template #least><Len :ticks="frame.thinnest" :system="system" about bare /></template
              ><template #most><Len :ticks="frame.thickest" :system="system" about /></template></I18nT></span
          ><span class="label">{{ $t("thick, thinnest to thickest place") }}</span>
        </div>
      </div>
      <p class="says"><Fig :text="data.says" />.</p>
      <p class="soft">
        {{
          $t(
            "Reckoned from the survey of the board: rigid wood, even tables. Your hands and the machine decide; its manual first.",
          )
        }}
      </p>
    </template>
  </div>
  <p v-else>{{ $t("No piece of this plan is faced at a machine.") }}</p>
</template>

<style scoped>
.more {
  flex: none;
}
.choose {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem;
  margin-bottom: 1rem;
}
.choose .field {
  flex: 0 1 14rem;
}
.run {
  display: flex;
  gap: 1rem;
  align-items: center;
  margin: 0.8rem 0 1.2rem;
}
.run input {
  flex: 1;
  min-height: 44px;
  accent-color: var(--chalk);
}
.figure small {
  font-size: 1rem;
}
.says {
  font-size: 1.25rem;
  font-weight: 620;
  margin: 1.2rem 0 0.5rem;
}
</style>

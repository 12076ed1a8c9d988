<script setup lang="ts">
/** A reading: typed with large keys, or taken from the connected caliper. */
import { I18nT } from "vue-i18n";
import { ElButton } from "element-plus";
import { computed, onMounted, ref } from "vue";
import { api, type Step } from "../../api/client";
import Fig from "../../controls/Fig.vue";
import Len from "../../controls/Len.vue";
import { withErrorToast } from "../../controls/withErrorToast";
import { MeasureError, parse, show, unitWord, type System, isMetric } from "../../measure";
import NumberPad from "../boards/NumberPad.vue";
import { EMPTY, padTicks, pressed } from "../boards/quick";

const props = defineProps<{
  step: Step;
  system: System;
  layout: number;
  foretold: number;
  caliper: boolean;
  readout: boolean;
}>();
const emit = defineEmits<{ read: [number] }>();
const text = ref("");
let pad = EMPTY;
const trouble = ref("");
const field = ref<HTMLInputElement>();
onMounted(() => field.value?.focus());
const edge = computed(() => props.step.kind === "edge" || props.step.kind === "glue-edge");
const fitted = computed(() => props.step.kind.startsWith("fit-"));
const ticks = computed<{ value?: number; why?: string }>(() => {
  if (!text.value.trim()) return {};
  try {
    return { value: parse(text.value, props.system) };
  } catch (problem) {
    return { why: problem instanceof MeasureError ? problem.why : String(problem) };
  }
});
/** Opposite sides: those of the same part whose measure is another one. */
const unlike = computed(() => {
  const mine = ticks.value.value;
  return mine === undefined ? [] : props.step.fellows.filter((f) => f.measure !== mine);
});
function give(): void {
  if (ticks.value.value !== undefined) emit("read", ticks.value.value);
}
function press(key: string): void {
  pad = pressed(pad, key);
  const found = padTicks(pad, props.system);
  text.value = pad.sixteenths && found !== null ? show(found, props.system) : pad.digits;
}
async function take(instrument: "caliper" | "readout"): Promise<void> {
  await withErrorToast(async () => {
    const { data } = await api.POST("/api/layouts/{layout}/caliper", {
      params: { path: { layout: props.layout } },
      body: { key: props.step.key, reading: props.foretold, instrument },
    });
    trouble.value = data!.trouble;
    if (data!.reading !== null) {
      text.value = show(data!.reading, isMetric(props.system) ? props.system : "in-decimal");
      emit("read", data!.reading);
    }
  });
}
</script>

<template>
  <form class="reading" @submit.prevent="give">
    <NumberPad :system="system" fine @press="press" />
    <div class="said">
      <label class="field"
        ><span>{{
          fitted
            ? $t("The length measured on the work")
            : edge
              ? $t("The gap under a square ({system})", { system: unitWord(system) })
              : step.dimension !== "thickness" && step.dimension !== "straight"
                ? $t("What the rule shows ({system})", { system: unitWord(system) })
                : $t("The caliper's reading ({system})", { system: unitWord(system) })
        }}</span
        ><input ref="field" v-model="text" class="line-input big" inputmode="none" autocomplete="off"
      /></label>
      <p v-if="ticks.why" class="note"><Fig :text="`'${text}' ${ticks.why}`" /></p>
      <p v-if="trouble" class="note" role="alert">{{ trouble }}</p>
      <p v-if="edge" class="soft">{{ $t("Nothing at all, or under a 64th.") }}</p>
      <p v-else class="soft">
        <I18nT :keypath="fitted ? 'The list says {length}.' : 'It should show {length}.'" scope="global"
          ><template #length
            ><b><Len :ticks="fitted ? step.stock_out : foretold" :system="system" nearest /></b></template
        ></I18nT>
      </p>
      <template v-if="fitted">
        <p v-for="f in step.fellows" :key="f.piece" class="soft">
          <I18nT keypath="{piece} was measured at {length}." scope="global"
            ><template #piece>{{ f.piece }}</template
            ><template #length
              ><b><Len :ticks="f.measure" :system="system" nearest /></b></template
          ></I18nT>
        </p>
        <p v-if="unlike.length" class="note" role="alert">
          <template v-for="f in unlike" :key="f.piece"
            ><I18nT
              :keypath="f.measure > ticks.value! ? '{by} shorter than {piece}.' : '{by} longer than {piece}.'"
              scope="global"
              ><template #by
                ><Len :ticks="Math.abs(f.measure - ticks.value!)" :system="system" nearest /></template
              ><template #piece>{{ f.piece }}</template></I18nT
            >{{ " " }}
          </template>
          {{ $t("Measure both places and both diagonals again before the cut.") }}
        </p>
      </template>
      <div class="acts">
        <ElButton class="act lead" :disabled="ticks.value === undefined" native-type="submit">
          {{ fitted ? $t("That is its length") : $t("That is the reading") }}
        </ElButton>
        <ElButton v-if="caliper && !fitted && !edge" class="act" @click="take('caliper')">
          {{ $t("Take it from the caliper") }}
        </ElButton>
        <ElButton v-if="readout && step.machine === 'planer'" class="act" @click="take('readout')">
          {{ $t("Take the planer's readout") }}
        </ElButton>
      </div>
    </div>
  </form>
</template>

<style scoped>
.reading {
  display: grid;
  grid-template-columns: minmax(0, 26rem) minmax(0, 24rem);
  gap: 1.6rem;
}
.said {
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
}
@media (max-width: 760px) {
  .reading {
    grid-template-columns: minmax(0, 1fr);
  }
  .said {
    grid-row: 1;
  }
}
.big {
  font-size: 2rem;
  min-height: 60px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}
.acts .act {
  flex: 1;
  min-height: 60px;
  font-size: 1.2rem;
}
</style>

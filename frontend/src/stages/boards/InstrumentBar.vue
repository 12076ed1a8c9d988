<script setup lang="ts">
/**
 * What the connected instruments can do for this board; odd readings are asked about before they
 * are taken.
 */
import { useEventListener } from "@vueuse/core";
import { ElButton } from "element-plus";
import { computed, onBeforeUnmount, ref, watch } from "vue";
import { api, type Board, type Defect } from "../../api/client";
import { takeReading, target, today, type Taken } from "../../api/instruments";
import { useProject } from "../../api/project";
import { useProjectWorkshop, type Workshop } from "../../api/workshop";
import { plainFault } from "../../board/make";
import Fig from "../../controls/Fig.vue";
import { TICKS_PER_INCH } from "../../measure";

const props = defineProps<{ board: Board }>();
const emit = defineEmits<{ put: [string, Partial<Board>] }>();
const { pk } = useProject();
const { workshop } = useProjectWorkshop(pk);
const tools = computed<Partial<Workshop["instruments"]>>(() => workshop.value?.workshop.instruments ?? {});
const any = computed(() => Object.values(tools.value).some(Boolean));
const ready = computed(
  () => target.value && (target.value.kind === "thickness" ? tools.value.caliper : tools.value.moisture),
);
const taken = ref<Taken>();
const said = ref("");
const questions = ref<string[]>([]);
const beeps = ref<number[][]>([]);
const busy = ref(false);
watch(() => props.board.id, clear);
watch(target, () => (taken.value = undefined));

function clear(): void {
  taken.value = undefined;
  said.value = "";
  questions.value = [];
  beeps.value = [];
}
async function working(what: () => Promise<void>): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  try {
    await what();
  } catch (problem) {
    said.value = problem instanceof Error ? problem.message : String(problem);
  } finally {
    busy.value = false;
  }
}
function read(): void {
  const at = target.value;
  if (!at || !ready.value) return;
  void working(async () => {
    clear();
    const found = await takeReading(pk.value, props.board, at, today());
    if (found.value !== undefined && !found.question) at.put(found.value);
    else taken.value = found;
  });
}
function keepIt(): void {
  if (taken.value?.value !== undefined) target.value?.put(taken.value.value);
  taken.value = undefined;
}
function sweep(): void {
  void working(async () => {
    clear();
    const { data } = await api.POST("/api/projects/{project}/sweep", {
      params: { path: { project: pk.value } },
      body: { board: props.board },
    });
    said.value = data!.said;
    beeps.value = data!.places;
    if (!data!.places.length) emit("put", "a search for metal", { searched: true });
  });
}
function markMetal(): void {
  const half = TICKS_PER_INCH / 2;
  const found: Defect[] = beeps.value.map(([x, y]) =>
    plainFault(
      "metal",
      "both",
      {
        x0: Math.max(0, x! - half),
        x1: Math.min(props.board.length, x! + half),
        y0: y! - half,
        y1: y! + half,
      },
      { severity: "grave" },
    ),
  );
  emit("put", "metal found", { defects: [...props.board.defects, ...found], searched: true });
  beeps.value = [];
}
function scan(): void {
  void working(async () => {
    clear();
    const { data } = await api.POST("/api/projects/{project}/scan", {
      params: { path: { project: pk.value } },
      body: { board: props.board },
    });
    said.value = data!.trouble || data!.said;
    questions.value = data!.questions;
    if (data!.surface) emit("put", "a scan", { surface: data!.surface, warp: { bow: 0, cup: 0, twist: 0 } });
  });
}
function key(event: KeyboardEvent): void {
  if (event.key === "Enter" && (event.ctrlKey || event.metaKey) && ready.value) {
    event.preventDefault();
    read();
  }
}
useEventListener("keydown", key);
onBeforeUnmount(() => {
  window.removeEventListener("keydown", key);
  target.value = undefined;
});
</script>

<template>
  <div class="instruments" role="group" :aria-label="$t('Instruments')">
    <template v-if="any">
      <ElButton
        v-if="tools.caliper || tools.moisture"
        class="act"
        :disabled="!ready || busy"
        :title="ready ? $t('Ctrl Enter') : $t('Put the cursor into a thickness or a moisture first')"
        @mousedown.prevent
        @click="read"
      >
        {{ $t("Take reading") }}<span v-if="ready" class="soft">: {{ target!.says }}</span>
      </ElButton>
      <ElButton v-if="tools.metal" class="act" :disabled="busy" @click="sweep">{{
        $t("Search it for metal")
      }}</ElButton>
      <ElButton v-if="tools.scanner" class="act" :disabled="busy" @click="scan">{{
        $t("Scan both faces")
      }}</ElButton>
    </template>
    <span v-else-if="workshop" class="soft"
      >{{ $t("No instrument is connected;") }}
      <RouterLink :to="{ name: 'workshop', params: { workshop: workshop.pk }, query: { view: 'room' } }">{{
        $t("the workshop")
      }}</RouterLink>
      {{ $t("has some. Figures are typed.") }}</span
    >
    <p v-if="taken" class="note" role="alert">
      <Fig :text="taken.trouble || taken.question" />
      <ElButton class="act" @click="read">{{ $t("Read again") }}</ElButton>
      <ElButton v-if="taken.value !== undefined" class="act" @click="keepIt">{{ $t("Keep it") }}</ElButton>
    </p>
    <p v-if="said" role="status">
      <Fig :text="said" />
      <ElButton v-if="beeps.length" class="act" @click="markMetal">{{ $t("Mark the metal") }}</ElButton>
    </p>
    <p v-for="q in questions" :key="q" class="note" role="alert"><Fig :text="q" /></p>
  </div>
</template>

<style scoped>
.instruments {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
}
.instruments p {
  flex: 1 1 100%;
}
</style>

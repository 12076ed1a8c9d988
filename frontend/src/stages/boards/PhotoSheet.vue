<script setup lang="ts">
/**
 * A photograph of a face, straightened by the board's four corners: each is tapped roughly, then
 * finely in a loupe.
 */
import { I18nT } from "vue-i18n";
import { ElButton, ElMessage } from "element-plus";
import { computed, nextTick, ref, watch } from "vue";
import { api, type Board } from "../../api/client";
import { useProject } from "../../api/project";
import AppDialog from "../../controls/AppDialog.vue";
import { useKeyPointer } from "../../controls/keyPointer";
import FileButton from "../../controls/fields/FileButton.vue";
import { t } from "../../i18n/i18n";

const props = defineProps<{ board: Board; face: "A" | "B" }>();
const emit = defineEmits<{ close: []; put: [string, Partial<Board>] }>();
const { pk } = useProject();
const open = ref(true);
const picture = ref(0);
const busy = ref(false);
const at = ref(0);
const corners = ref<([number, number] | undefined)[]>([undefined, undefined, undefined, undefined]);
const rough = ref<[number, number]>();
const photo = ref<HTMLElement>();
const loupeAt = ref<HTMLElement>();
useKeyPointer(photo, () => (rough.value ? "" : "tap"));
useKeyPointer(loupeAt, () => "tap");
/** What is pointed at next has the keys. */
watch(rough, (now) => void nextTick(() => (now ? loupeAt : photo).value?.focus()));
const size = ref({ w: 0, h: 0 });
const CORNERS = [
  t("datum end, datum edge"),
  t("far end, datum edge"),
  t("far end, far edge"),
  t("datum end, far edge"),
];
const LOUPE = 260;
const CLOSER = 6;
const kept = computed(() => props.board.photos.find((p) => p.face === props.face));
const ready = computed(() => corners.value.every(Boolean));
const url = computed(() => `/api/pictures/${picture.value}/photograph`);

async function chosen(file: File): Promise<void> {
  busy.value = true;
  try {
    const answer = await fetch(`/api/projects/${pk.value}/pictures`, {
      method: "POST",
      body: file,
      headers: { "Content-Type": "application/octet-stream" },
    });
    const told = (await answer.json()) as { picture: number; what?: string };
    if (!answer.ok) throw new Error(told.what);
    picture.value = told.picture;
  } catch (problem) {
    ElMessage({
      type: "error",
      message: problem instanceof Error ? problem.message : String(problem),
      duration: 8000,
    });
  } finally {
    busy.value = false;
  }
}
async function again(): Promise<void> {
  const { data } = await api.GET("/api/pictures/{picture}", {
    params: { path: { picture: kept.value!.picture } },
  });
  picture.value = data!.picture;
  corners.value = CORNERS.map((_, k) => data!.corners[k] as [number, number] | undefined);
}
function shown(event: Event): void {
  const image = event.target as HTMLImageElement;
  size.value = { w: image.clientWidth, h: image.clientHeight };
}
function tapped(event: MouseEvent): void {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
  size.value = { w: box.width, h: box.height };
  rough.value = [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height];
}
/** The loupe shows the place tapped in its middle, so many times larger. */
const loupe = computed(() => {
  const [x, y] = rough.value ?? [0, 0];
  const [w, h] = [size.value.w * CLOSER, size.value.h * CLOSER];
  return {
    backgroundImage: `url(${url.value})`,
    backgroundSize: `${w}px ${h}px`,
    backgroundPosition: `${LOUPE / 2 - x * w}px ${LOUPE / 2 - y * h}px`,
  };
});
function fine(event: MouseEvent): void {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
  const [x, y] = rough.value!;
  const dx = (event.clientX - box.left - LOUPE / 2) / (size.value.w * CLOSER);
  const dy = (event.clientY - box.top - LOUPE / 2) / (size.value.h * CLOSER);
  corners.value[at.value] = [Math.min(1, Math.max(0, x + dx)), Math.min(1, Math.max(0, y + dy))];
  rough.value = undefined;
  const next = corners.value.findIndex((c) => !c);
  if (next >= 0) at.value = next;
}
async function lay(): Promise<void> {
  busy.value = true;
  try {
    const { data } = await api.POST("/api/pictures/{picture}/straighten", {
      params: { path: { picture: picture.value } },
      body: { board: props.board, face: props.face, corners: corners.value.map((c) => [...c!]) },
    });
    emit("put", t("a photograph of face {face}", { face: props.face }), {
      photos: [
        ...props.board.photos.filter((p) => p.face !== props.face),
        { face: props.face, picture: data!.picture },
      ],
    });
    open.value = false;
  } catch (problem) {
    ElMessage({
      type: "error",
      message: problem instanceof Error ? problem.message : String(problem),
      duration: 8000,
    });
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <AppDialog
    v-model="open"
    :title="$t('Photograph of face {face}', { face })"
    width="min(60rem, 96vw)"
    @closed="emit('close')"
  >
    <div v-if="!picture" class="start">
      <p>
        {{
          $t(
            "Stand over the middle of the board with all four corners in the picture. Face {face} looks at you.",
            { face },
          )
        }}
      </p>
      <FileButton look="lead" accept="image/*" :disabled="busy" @file="chosen">{{
        $t("Take or choose a photograph")
      }}</FileButton>
      <ElButton v-if="kept" class="act" @click="again">{{
        $t("Set the corners of the one there is again")
      }}</ElButton>
    </div>
    <template v-else>
      <p v-if="rough" class="ask">
        <I18nT keypath="Now exactly: tap the corner {corner}." scope="global"
          ><template #corner
            ><b>{{ CORNERS[at] }}</b></template
          ></I18nT
        >
      </p>
      <p v-else-if="!ready" class="ask">
        <I18nT keypath="Tap the corner {corner}." scope="global"
          ><template #corner
            ><b>{{ CORNERS[at] }}</b></template
          ></I18nT
        >
      </p>
      <p v-else class="ask">{{ $t("All four corners are set.") }}</p>
      <div
        v-if="rough"
        ref="loupeAt"
        class="loupe"
        :style="loupe"
        tabindex="0"
        role="application"
        :aria-label="$t('Closer: {corner}. Arrow keys point, Enter sets it', { corner: CORNERS[at] })"
        @click="fine"
      >
        <i />
      </div>
      <div
        v-show="!rough"
        ref="photo"
        class="photo"
        tabindex="0"
        role="application"
        :aria-label="$t('The photograph: {corner}. Arrow keys point, Enter taps', { corner: CORNERS[at] })"
        @click="tapped"
      >
        <img :src="url" :alt="$t('Face {face} as photographed', { face })" @load="shown" />
        <template v-for="(c, k) in corners" :key="k"
          ><span
            v-if="c"
            class="pin"
            :class="{ on: at === k }"
            :style="{ left: `${c[0] * 100}%`, top: `${c[1] * 100}%` }"
            >{{ k + 1 }}</span
          ></template
        >
      </div>
      <div class="ends">
        <ElButton
          v-for="(word, k) in CORNERS"
          :key="word"
          class="act"
          :class="{ on: at === k && !ready }"
          :aria-pressed="!!corners[k]"
          @click="
            at = k;
            rough = undefined;
            corners[k] = undefined;
          "
        >
          {{ k + 1 }} {{ word }}{{ corners[k] ? " ✓" : "" }}
        </ElButton>
        <ElButton class="act lead" :disabled="!ready || busy" @click="lay">{{
          $t("Lay it under the drawing")
        }}</ElButton>
      </div>
    </template>
  </AppDialog>
</template>

<style scoped>
.start {
  display: flex;
  flex-direction: column;
  gap: 1rem;
  align-items: flex-start;
}
.start label {
  display: inline-flex;
  align-items: center;
  cursor: pointer;
}
.ask {
  font-size: 1.1rem;
  margin-bottom: 0.6rem;
}
.photo {
  position: relative;
  cursor: crosshair;
}
.photo img {
  display: block;
  width: 100%;
}
.pin {
  position: absolute;
  width: 22px;
  height: 22px;
  margin: -11px 0 0 -11px;
  border-radius: 50%;
  border: 2px solid #fff;
  background: var(--chalk);
  color: #fff;
  font-weight: 700;
  font-size: 12px;
  line-height: 18px;
  text-align: center;
  pointer-events: none;
}
.loupe {
  position: relative;
  width: 260px;
  height: 260px;
  margin: 0 auto;
  border: 3px solid var(--ink);
  border-radius: 50%;
  background-repeat: no-repeat;
  background-color: #888;
  cursor: crosshair;
}
.loupe i {
  position: absolute;
  inset: calc(50% - 8px);
  border: 1px solid var(--crayon);
  border-radius: 50%;
  pointer-events: none;
}
.ends {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin-top: 0.8rem;
}
</style>

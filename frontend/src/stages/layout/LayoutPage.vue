<script setup lang="ts">
/** All boards under one ruler, the parts chalked on them, what it costs and how near the best it is. */
import { I18nT } from "vue-i18n";
import { useEventListener } from "@vueuse/core";
import { ElButton } from "element-plus";
import { useQueryClient } from "@tanstack/vue-query";
import { computed, ref, watch } from "vue";
import { api, send } from "../../api/client";
import { useLayout } from "../../api/layout";
import { nothingFromBoards } from "../../api/parts";
import { useProject } from "../../api/project";
import { itemName } from "../../board/geometry";
import { inField } from "../../controls/keys";
import { withErrorToast } from "../../controls/withErrorToast";
import Fig from "../../controls/Fig.vue";
import Len from "../../controls/Len.vue";
import Hint from "../../controls/Hint.vue";
import MenuButton, { type MenuItem } from "../../controls/MenuButton.vue";
import NotFromBoards from "../../controls/NotFromBoards.vue";
import { useWidth } from "../../controls/width";
import ShopSheet from "../../controls/ShopSheet.vue";
import ComparePlans from "./ComparePlans.vue";
import WhatSaves from "./WhatSaves.vue";
import PlanLanes from "./PlanLanes.vue";
import { toggled, useBench } from "./bench";
import { provenBound } from "./proven";
import { useReasons } from "./reasons";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import { money } from "../../money";
import { t } from "../../i18n/i18n";

const { pk, project } = useProject();
const client = useQueryClient();
const { data } = useLayout(pk);
const seconds = ref(10);
const zoom = ref(1);
const face = ref<"A" | "B">("A");
const chosen = ref("");
const shop = ref(false);
const frame = ref<HTMLElement>();
const width = useWidth(frame, 1100);

const latest = computed(() => data.value?.latest ?? null);
const standing = computed(() => data.value?.standing ?? null);
const going = computed(() => latest.value?.state === "waiting" || latest.value?.state === "searching");
const plan = computed(() => standing.value?.plan ?? undefined);
const boards = computed(() =>
  standing.value && !standing.value.stale ? standing.value.boards : (project.value?.boards ?? []),
);
const parts = computed(() => standing.value?.parts ?? []);
const shown = computed(() => standing.value?.boards ?? boards.value);
const figures = computed(() => {
  const now = going.value ? latest.value : standing.value;
  const total = (now?.parts ?? []).reduce((sum, p) => sum + p.quantity, 0);
  return {
    total,
    placed: now?.unplaced === null || now?.unplaced === undefined ? null : total - now.unplaced,
    cost: now?.cost ?? null,
    bound: provenBound(now, going.value ? standing.value : latest.value),
  };
});
const gap = computed(() => {
  const { cost, bound } = figures.value;
  if (cost === null || bound === null || figures.value.placed !== figures.value.total) return "";
  if (cost <= bound + 0.005) return t("proved the cheapest there is");
  if (!bound) return t("no bound: not proved");
  return t("at most {cost} % over the cheapest: not proved", { cost: ((cost / bound - 1) * 100).toFixed(0) });
});

async function layOut(): Promise<void> {
  await withErrorToast(async () => {
    if (going.value && latest.value)
      await api.POST("/api/layouts/{layout}/stop", { params: { path: { layout: latest.value.pk } } });
    else
      await api.POST("/api/projects/{project}/layout", {
        params: { path: { project: pk.value } },
        body: { seconds: seconds.value },
      });
    await client.invalidateQueries({ queryKey: ["layout", pk.value] });
  });
}
const depths = ref(false);
const comparing = ref(false);
const saving = ref(false);
const lanes = ref<InstanceType<typeof PlanLanes>>();
const {
  picked,
  swapping,
  drawing,
  movable,
  fixings,
  held,
  pickedName,
  isPinned,
  lies,
  make,
  act,
  hold,
  pin,
  forbid,
  forbidWhereItLies,
  pick,
  back,
  after,
} = useBench(pk, standing, plan, going);
const { reasons, pickedWhy, unkept } = useReasons(standing, plan, picked, lies);
const benchKeys: Record<string, () => void> = {
  p: pin,
  m: () => lanes.value?.carry(),
  t: () => act("turn"),
  x: () => act("split"),
  j: () => act("join"),
  delete: () => act("take-up"),
  backspace: () => act("take-up"),
  s: () => (swapping.value = picked.value),
  b: forbidWhereItLies,
  u: () => data.value?.undos && back("undo"),
  r: () => data.value?.redos && back("redo"),
  k: () => (comparing.value = !comparing.value),
};
watch(
  () => latest.value?.state,
  (now, before) => {
    if (before && now && ["done", "stopped"].includes(now))
      for (const key of ["milling", "account"]) void client.invalidateQueries({ queryKey: [key, pk.value] });
  },
);
const planFile = ref<HTMLInputElement>();
const files = computed<MenuItem[]>(() => {
  const at = `/api/layouts/${standing.value?.pk}/plan`;
  const bring = { label: t("Bring a plan"), act: () => planFile.value?.click() };
  if (!plan.value || !standing.value) return [bring];
  return [
    { label: t("Plan file"), href: `${at}.json` },
    { label: "SVG", href: `${at}.svg` },
    { label: "DXF", href: `${at}.dxf` },
    bring,
  ];
});
async function bringPlan(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = "";
  if (file)
    await withErrorToast(async () => {
      await send(`/api/projects/${pk.value}/plan`, file);
      await client.invalidateQueries({ queryKey: ["layout", pk.value] });
    });
}
function key(event: KeyboardEvent): void {
  if (inField(event) || event.ctrlKey || event.metaKey) return;
  if (event.key.toLowerCase() === "l") void layOut();
  if (event.key.toLowerCase() === "f") face.value = face.value === "A" ? "B" : "A";
  if (event.key === "+" || event.key === "=") zoom.value = Math.min(6, zoom.value * 1.25);
  if (event.key === "-") zoom.value = Math.max(1, zoom.value / 1.25);
  if (event.key === "Escape") {
    chosen.value = "";
    picked.value = swapping.value = null;
    drawing.value = false;
  }
  const made = benchKeys[event.key.toLowerCase()];
  if (made && plan.value) {
    event.preventDefault();
    made();
  }
}
useEventListener("keydown", key);
const chosenPart = computed(() => parts.value.find((p) => p.id === (picked.value?.part ?? chosen.value)));
const progress = computed(() => {
  const run = latest.value;
  if (!run || run.state === "waiting") return t("waiting for the worker");
  const trying = run.trying ? t("; now {trying}", { trying: run.trying }) : "";
  return t("{spent} of {seconds} s, {rounds} arrangements tried{trying}", {
    spent: run.spent.toFixed(1),
    seconds: run.seconds,
    rounds: run.rounds,
    trying,
  });
});
const SECONDS = [
  [5, "5 s"],
  [10, "10 s"],
  [30, "30 s"],
  [120, "2 min"],
] as const;
</script>

<template>
  <section v-if="project" class="stage">
    <div class="stage-head">
      <h1>{{ $t("Lay out") }}</h1>
      <div class="figures grow">
        <div v-if="figures.placed !== null">
          <span class="figure"
            >{{ figures.placed }} <small>{{ $t("of {total}", { total: figures.total }) }}</small></span
          ><span class="label">{{ $t("parts placed") }}</span>
        </div>
        <div v-if="figures.cost !== null">
          <span class="figure">{{ money(figures.cost) }}</span><span class="label">{{
            $t("boards cut cost")
          }}</span>
        </div>
        <div v-if="figures.bound">
          <span class="figure">{{ money(figures.bound) }}</span><span class="label">{{
            $t("nothing can cost less{gap}", { gap: gap ? `; ${gap}` : "" })
          }}</span>
        </div>
        <div v-else-if="gap">
          <span class="label">{{ gap }}</span>
        </div>
      </div>
      <ChoiceField v-model="seconds" class="seconds" :label="$t('Search for')" :options="SECONDS" />
      <ElButton
        class="act lead"
        :disabled="!project.parts.length || !project.boards.length || nothingFromBoards(project.parts)"
        @click="layOut"
      >
        {{
          going
            ? $t("Stop here")
            : !standing
              ? $t("Lay out")
              : held && !standing.stale
                ? $t("Solve the rest")
                : $t("Lay out again")
        }}
      </ElButton>
    </div>
    <div v-if="going && latest" class="progress" role="status">
      <span class="run" :style="{ width: `${Math.min(100, (latest.spent / latest.seconds) * 100)}%` }" />
      <span class="says">{{ progress }}</span>
    </div>
    <NotFromBoards v-if="nothingFromBoards(project.parts)" />
    <p v-else-if="!project.parts.length || !project.boards.length" class="first">
      <I18nT
        :keypath="
          project.parts.length
            ? 'To lay out there must be {boards}.'
            : project.boards.length
              ? 'To lay out there must be {parts}.'
              : 'To lay out there must be {parts} and {boards}.'
        "
        scope="global"
        ><template #parts
          ><RouterLink :to="{ name: 'list', params: { project: pk } }">{{
            $t("parts on the list")
          }}</RouterLink></template
        ><template #boards
          ><RouterLink :to="{ name: 'boards', params: { project: pk } }">{{
            $t("boards in the rack")
          }}</RouterLink></template
        ></I18nT
      >
    </p>
    <p v-if="latest?.state === 'failed'" class="note">{{ latest.trouble }}</p>
    <p v-if="standing?.stale && !going" class="note">
      {{
        $t("Parts, boards or the shop have changed since this plan was made. Lay out again before cutting.")
      }}
    </p>
    <p
      v-if="
        !going &&
        standing &&
        !standing.stale &&
        latest &&
        latest.pk !== standing.pk &&
        ['done', 'stopped'].includes(latest.state)
      "
      class="soft after"
    >
      {{ $t("The last search found nothing better: this plan stands.") }}
    </p>
    <div class="tools">
      <ElButton class="act" :class="{ on: face === 'A' }" @click="face = 'A'">{{ $t("Face A") }}</ElButton>
      <ElButton class="act" :class="{ on: face === 'B' }" @click="face = 'B'">{{ $t("Face B") }}</ElButton>
      <ElButton class="act" :aria-label="$t('Smaller')" @click="zoom = Math.max(1, zoom / 1.25)">−</ElButton>
      <ElButton class="act" :aria-label="$t('Larger')" @click="zoom = Math.min(6, zoom * 1.25)">+</ElButton>
      <template v-if="plan">
        <Hint :text="$t('Key: U')">
          <ElButton class="act" :disabled="!data?.undos || going" @click="back('undo')">{{
            $t("Back")
          }}</ElButton>
        </Hint>
        <Hint :text="$t('Key: R')">
          <ElButton class="act" :disabled="!data?.redos || going" @click="back('redo')">{{
            $t("Forth")
          }}</ElButton>
        </Hint>
        <ElButton
          v-if="movable"
          class="act"
          :class="{ on: drawing }"
          :aria-pressed="drawing"
          @click="drawing = !drawing"
        >
          {{ $t("Forbid a place") }}
        </ElButton>
      </template>
      <span class="grow" />
      <template v-if="plan">
        <ElButton class="act quiet" :class="{ on: depths }" :aria-pressed="depths" @click="depths = !depths">
          {{ $t("What flattening takes") }}
        </ElButton>
        <ElButton class="act quiet" :class="{ on: saving }" :aria-pressed="saving" @click="saving = !saving">
          {{ $t("What would save") }}
        </ElButton>
        <Hint :text="$t('Key: K')"
          ><ElButton
            class="act quiet"
            :class="{ on: comparing }"
            :aria-pressed="comparing"
            @click="comparing = !comparing"
          >
            {{ $t("Plans kept") }}
          </ElButton></Hint
        >
      </template>
      <ElButton class="act quiet" @click="shop = true">{{ $t("The shop") }}</ElButton>
      <template v-if="plan && standing">
        <RouterLink class="act" :to="{ name: 'chalk', params: { project: pk } }">{{
          $t("Chalk it")
        }}</RouterLink>
      </template>
      <MenuButton :label="$t('Files')" quiet :items="files" />
      <input
        ref="planFile"
        class="sr"
        type="file"
        accept=".json"
        tabindex="-1"
        :aria-label="$t('Bring a plan')"
        @change="bringPlan"
      />
    </div>
    <div v-if="plan && movable" class="tools hands" role="toolbar" :aria-label="$t('The piece in hand')">
      <span v-if="drawing" class="soft idle">{{
        $t("Draw on a board over the place where nothing may lie. Esc leaves it.")
      }}</span>
      <span v-else-if="swapping" class="soft idle">{{
        $t("Now pick the piece that {swapping} is to change places with. Esc leaves it.", {
          swapping: itemName(swapping),
        })
      }}</span>
      <span v-else-if="!picked" class="soft idle">{{
        $t("Drag a piece to where you want it, or pick it to pin, turn or take it up.")
      }}</span>
      <template v-else>
        <span class="picked"
          ><b>{{ pickedName }}</b>
          <template v-if="chosenPart"
            >{{ chosenPart.name }}, <Len :ticks="chosenPart.length" :system="project.system" bare /> ×
            <Len :ticks="chosenPart.width" :system="project.system" bare /> ×
            <Len :ticks="chosenPart.thickness" :system="project.system" /></template
        ></span>
        <Hint :text="$t('Key: M')"
          ><ElButton class="act" @click="lanes?.carry()">{{ $t("Move") }}</ElButton></Hint
        >
        <template v-if="lies">
          <Hint :text="$t('Key: P')"
            ><ElButton class="act" :class="{ on: isPinned }" :aria-pressed="isPinned" @click="pin">
              {{ isPinned ? $t("Loosen the pin") : $t("Pin it") }}
            </ElButton></Hint
          >
          <Hint :text="$t('Key: Delete')"
            ><ElButton class="act" @click="act('take-up')">{{ $t("Take it up") }}</ElButton></Hint
          >
          <Hint :text="$t('Key: S')"
            ><ElButton class="act" :class="{ on: swapping }" @click="swapping = swapping ? null : picked">
              {{ $t("Change places") }}
            </ElButton></Hint
          >
          <Hint :text="$t('Key: T')"
            ><ElButton class="act" @click="act('turn')">{{ $t("Turn end for end") }}</ElButton></Hint
          >
          <Hint :text="$t('Key: X')"
            ><ElButton class="act" @click="act('split')">{{ $t("Cut behind it") }}</ElButton></Hint
          >
          <Hint :text="$t('Key: J')"
            ><ElButton class="act" @click="act('join')">{{ $t("Join with the next") }}</ElButton></Hint
          >
          <Hint :text="$t('Key: B')"
            ><ElButton class="act quiet" @click="forbidWhereItLies">{{ $t("Nothing here") }}</ElButton></Hint
          >
        </template>
      </template>
    </div>
    <p v-for="r in unkept" :key="r.text" class="note"><Fig :text="r.text" /></p>
    <p v-for="text in pickedWhy" :key="text" class="soft why"><Fig :text="text" /></p>
    <p v-if="held && movable" class="soft held">
      {{ $t("Held:") }}
      <template v-if="fixings.pins.length">{{
        $t("{pins} pinned", { pins: fixings.pins.map((i) => itemName(i)).join(", ") })
      }}</template>
      <span v-for="(f, i) in fixings.forbidden" :key="i" class="zone"
        ><I18nT keypath="nothing on {board} from {from} to {to}" scope="global"
          ><template #board>{{ f.board }}</template
          ><template #from><Len :ticks="f.x0" :system="project.system" about /></template
          ><template #to><Len :ticks="f.x1" :system="project.system" about /></template
        ></I18nT>
        <ElButton
          class="act quiet"
          :aria-label="$t('Allow the place on {board} again', { board: f.board })"
          @click="hold({ forbidden: fixings.forbidden.filter((_, k) => k !== i) })"
        >
          {{ $t("allow") }}
        </ElButton></span
      >
      <span v-if="fixings.excluded.length" class="zone">{{
        $t("{excluded} left whole", { excluded: fixings.excluded.join(", ") })
      }}</span>
      <span v-if="fixings.priority.length" class="zone">{{
        $t("{priority} placed first", { priority: fixings.priority.join(", ") })
      }}</span>
      <ElButton class="act quiet" @click="hold({ pins: [], forbidden: [], excluded: [], priority: [] })">
        {{ $t("Let all go") }}
      </ElButton>
    </p>
    <WhatSaves v-if="saving && standing?.plan" :layout="standing.pk" />
    <ComparePlans
      v-if="comparing && standing?.plan"
      :project="pk"
      :standing="standing"
      :system="project.system"
      :width="width"
      :face="face"
      @stood="after(async () => undefined)"
    />
    <div ref="frame">
      <PlanLanes
        ref="lanes"
        :picked="picked"
        :boards="shown"
        :plan="plan"
        :parts="parts"
        :layout="standing"
        :system="project.system"
        :face="face"
        :zoom="zoom"
        :width="width"
        :chosen="chosen"
        :movable="movable"
        :drawing="drawing"
        :depths="depths ? pk : 0"
        :reasons="reasons"
        @zoom="zoom = Math.min(6, Math.max(1, zoom * $event))"
        @update:picked="pick"
        @part="chosen = chosen === $event ? '' : $event"
        @move="make"
        @forbid="forbid"
        @rest="hold({ excluded: toggled(fixings.excluded, $event) })"
        @first="hold({ priority: toggled(fixings.priority, $event) })"
      />
    </div>
    <ShopSheet v-if="shop" @close="shop = false" />
  </section>
</template>

<style scoped>
.first {
  font-size: 1.15rem;
  margin-bottom: 1rem;
}
.after {
  margin-bottom: 0.8rem;
}
.figure small {
  font-size: 1rem;
  font-weight: 500;
}
.progress {
  position: relative;
  height: 34px;
  background: var(--plaster-deep);
  margin-bottom: 0.8rem;
  overflow: hidden;
}
.run {
  position: absolute;
  inset: 0 auto 0 0;
  background-color: var(--tape);
  background-image: repeating-linear-gradient(90deg, var(--ink) 0 1px, transparent 1px 14px);
  background-size: 100% 7px;
  background-repeat: no-repeat;
  border-right: 6px solid var(--steel);
  transition: width 0.4s linear;
}
.says {
  position: absolute;
  left: 0.8rem;
  bottom: 3px;
  font-weight: 620;
}
.seconds {
  width: 7rem;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
  align-items: center;
  margin-bottom: 0.8rem;
}
.tools .grow {
  flex: 1;
}
.idle {
  display: flex;
  align-items: center;
  min-height: 44px;
}
.hands {
  position: sticky;
  top: var(--tape-high);
  z-index: 5;
  background: var(--plaster);
  padding: 0.3rem 0;
}
.picked {
  padding: 0.3rem 0.8rem;
  border-left: 6px solid var(--chalk);
}
.held {
  margin-bottom: 0.4rem;
}
.zone {
  margin-left: 0.8rem;
}
</style>

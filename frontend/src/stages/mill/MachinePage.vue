<script setup lang="ts">
/**
 * At the machine: one step filling the screen, read from two metres, worked with one hand, a pedal
 * or the space bar.
 */
import { I18nT } from "vue-i18n";
import { useEventListener } from "@vueuse/core";
import { ElButton } from "element-plus";
import { computed, ref, useTemplateRef } from "vue";
import { useLayout } from "../../api/layout";
import { useSettings, type Method } from "../../api/milling";
import { unsent } from "../../api/outbox";
import { useProject } from "../../api/project";
import { who } from "../../api/who";
import { useProjectWorkshop } from "../../api/workshop";
import BoardDrawing from "../../board/BoardDrawing.vue";
import { itemName } from "../../board/geometry";
import Fig from "../../controls/Fig.vue";
import { inField } from "../../controls/keys";
import Len from "../../controls/Len.vue";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import UnplacedNote from "../../controls/UnplacedNote.vue";
import { TICKS_PER_INCH } from "../../measure";
import BoardRests from "./BoardRests.vue";
import { restsNow } from "./day";
import FacePasses from "./FacePasses.vue";
import HappenedSheet from "./HappenedSheet.vue";
import ReadingPad from "./ReadingPad.vue";
import RestNote from "./RestNote.vue";
import { foretold } from "./run";
import { useMachine } from "./useMachine";
import WaysNote from "./WaysNote.vue";

const { pk, project } = useProject();
const { change } = useSettings(pk);
const { workshop } = useProjectWorkshop(pk);
const happened = ref(false);
const rest = useTemplateRef("rest");
const {
  data,
  days,
  error,
  steps,
  at,
  step,
  run,
  doubted,
  stage,
  now,
  left,
  next,
  following,
  canDoubt,
  cautions,
  stopped,
  show,
  go,
  forward,
  read,
  again,
  button,
  canTakeBack,
  takeBack,
  byEye,
  clean,
  more,
  spare,
} = useMachine(pk);

/** This step done another way, here and now. */
function choose(method: Method): void {
  const mine = step.value!.key;
  void change((now) => ({ ...now, chosen: { ...now.chosen, [mine]: method } }));
}
/**
 * The board of this step with what is chalked on the piece in hand: "O1.2a/length-BR" is about the
 * second segment of O1.
 */
const { data: layout } = useLayout(pk);
const width = ref(window.innerWidth);
const resized = () => (width.value = window.innerWidth);
const picture = computed(() => {
  const piece = step.value?.key.split("/")[0] ?? "";
  const board = layout.value?.standing?.boards.find((b) => piece === b.id || piece.startsWith(`${b.id}.`));
  const plan = layout.value?.standing?.plan;
  const segments = [...(plan?.boards.find((b) => b.board === board?.id)?.segments ?? [])].sort(
    (a, b) => a.x0 - b.x0,
  );
  if (!board) return null;
  const n = parseInt(piece.slice(board.id.length + 1), 10);
  const face: "A" | "B" = step.value?.down.includes("face A") ? "B" : "A";
  return {
    board,
    face,
    segments: Number.isNaN(n) ? segments : segments.slice(n - 1, n),
    scale: Math.min(9, (width.value - 60) / (board.length / TICKS_PER_INCH)),
  };
});

/** What is cut now and has not rested yet. */
const rests = computed(() => {
  const now = step.value;
  if (!now || now.done) return undefined;
  const route = data.value?.routes.find((r) => r.steps.includes(now));
  return restsNow(days.value, route?.board ?? "", new Date());
});
const gone = computed(() =>
  (layout.value?.standing?.plan?.closed ?? []).flatMap((c) => c.items.map((i) => itemName(i))),
);

function pressed(event: KeyboardEvent): void {
  if (inField(event)) return;
  if (event.code === "Space" || event.key === "PageDown") {
    event.preventDefault();
    forward();
  } else if (event.key === "ArrowRight") go(1);
  else if (event.key === "ArrowLeft") go(-1);
}
useEventListener("keydown", pressed);
useEventListener("resize", resized);
</script>

<template>
  <main class="machine">
    <header>
      <RouterLink class="act" :to="{ name: 'mill', params: { project: pk } }">{{
        $t("Back to Mill")
      }}</RouterLink>
      <span class="grow">{{ project?.name }}</span>
      <ChoiceField
        v-if="workshop?.workshop.people?.length"
        v-model="who"
        class="me"
        :label="$t('At work')"
        hide-label
        :placeholder="$t('Who works?')"
        :options="[['', $t('Nobody named')], ...workshop.workshop.people.map((p) => [p, p] as const)]"
      />
      <span v-if="unsent.length" class="held" role="status">{{
        $t("Out of reach: {unsent} kept, sent later", { unsent: unsent.length })
      }}</span>
      <span v-if="step">{{ $t("{at} of {steps}", { at: at + 1, steps: steps.length }) }}</span>
    </header>
    <p v-if="error && !data" class="note">{{ error.message }}</p>
    <UnplacedNote />
    <RestNote ref="rest" />
    <p v-if="data?.stale" class="note">
      {{ $t("The project has changed since this plan was made. Lay out again before cutting.") }}
    </p>
    <template v-if="step && run && data">
      <section v-if="cautions" class="caution">
        <h1>{{ step.machine }}</h1>
        <ul>
          <li v-for="c in cautions" :key="c">{{ c }}</li>
        </ul>
      </section>
      <section v-else class="step" aria-live="polite">
        <p class="where">
          {{ step.machine }}<template v-if="step.people > 1">{{ $t(", with two") }}</template
          ><b v-if="step.done"> {{ " " + $t("· done") }}</b
          ><b v-else-if="!step.ready">
            · {{ step.rests_until ? $t("it rests still") : $t("not its turn yet") }}</b
          >
        </p>
        <h1><Fig :text="step.do" /></h1>
        <BoardRests v-if="rests" :rests="rests" :begins="days!.begins" />
        <div class="figures large">
          <div>
            <span class="figure set"><Fig :text="step.set_to" /></span
            ><span class="label">{{ $t("the setting") }}</span>
          </div>
          <div
            v-if="now.passes.length && !step.done && stage === 'pass'"
            class="count"
            :aria-label="$t('{left} passes to go', { left })"
          >
            <span class="figure">{{ left }}</span><span class="label"
              >{{ $t("pass to go | passes to go", left)
              }}<template v-if="step.usual_passes !== step.passes.length">{{
                $t("; usually {usual_passes} of {passes} here", {
                  usual_passes: step.usual_passes,
                  passes: step.passes.length,
                })
              }}</template></span
            >
          </div>
          <div v-if="stage === 'pass' && now.turns[run.taken]">
            <span class="figure"><Fig :text="now.turns[run.taken]!" /></span
            ><span class="label"
              >{{ $t("this pass")
              }}<template v-if="step.turn_over && run.taken >= step.turn_over">{{
                $t(", turned over")
              }}</template></span
            >
          </div>
          <div v-if="stage === 'pass' && next">
            <span class="figure"><Len :ticks="next" :system="data.system" nearest /></span
            ><span class="label">{{ $t("after it") }}</span>
          </div>
        </div>
        <ReadingPad
          v-if="(stage === 'read' || doubted) && !step.done"
          :step="step"
          :system="data.system"
          :layout="data.layout"
          :foretold="foretold(step, run)"
          :caliper="!!workshop?.workshop.instruments.caliper"
          :readout="!!workshop?.workshop.instruments.readout"
          @read="read"
        />
        <div
          v-if="run.verdict && stage !== 'read' && !doubted"
          class="verdict"
          :class="run.verdict.state === 'stop' ? 'stop' : ''"
          role="alert"
        >
          <p>
            <b><Fig :text="run.verdict.says" /></b>
          </p>
          <template v-if="run.verdict.state === 'stop'">
            <p>{{ $t("Stop here. What can be done:") }}</p>
            <ul>
              <li v-for="w in run.verdict.ways" :key="w"><Fig :text="w" /></li>
            </ul>
            <div class="after">
              <ElButton class="act" @click="again">{{ $t("Read it again") }}</ElButton>
              <ElButton v-if="stopped" class="act" @click="happened = true">{{
                $t("Write it in the log")
              }}</ElButton>
            </div>
          </template>
        </div>
        <template v-if="picture">
          <p v-if="step.first" class="feed" :aria-label="$t('Feed')">
            <b>{{ step.first === "datum end" ? $t("◀ datum end first") : $t("far end first ▶") }}</b>
          </p>
          <BoardDrawing
            :board="picture.board"
            :face="picture.face"
            :segments="picture.segments"
            :parts="layout?.standing?.parts ?? []"
            :gone="gone"
            :scale="picture.scale"
            :system="data.system"
          />
        </template>
        <FacePasses
          v-if="step.kind === 'face' && step.machine === 'jointer' && stage === 'pass' && !step.done"
          :step="step"
          :layout="data.layout"
          :taken="run.taken"
        />
        <div v-if="step.down || step.against" class="lies">
          <p v-if="step.down" class="say">
            <b>{{ $t("Down:") }}</b> {{ step.down }}
          </p>
          <p v-if="step.against" class="say">
            <b>{{ $t("Fence:") }}</b> {{ step.against }}
          </p>
        </div>
        <WaysNote v-if="step.ways.length" class="say" :step="step" @choose="choose" />
        <p v-if="step.check" class="say">
          <b>{{ $t("Check:") }}</b> <Fig :text="step.check" /><template v-if="step.leaves"
            >;
            <I18nT keypath="leaves {size}" scope="global"
              ><template #size><Fig :text="step.leaves" /></template></I18nT
          ></template>
        </p>
        <p v-if="spare !== null && spare < 0" class="verdict stop" role="alert">
          <I18nT keypath="That many passes take it {by} under its thickness." scope="global"
            ><template #by
              ><b><Len :ticks="-spare" :system="data.system" nearest /></b></template
          ></I18nT>
          {{ $t("Measure it first; if it is so, write it in the log, and its parts are laid out again.") }}
        </p>
        <p v-else-if="spare !== null" class="say">
          <I18nT keypath="After these passes {spare} is to spare." scope="global"
            ><template #spare><Len :ticks="spare" :system="data.system" nearest /></template
          ></I18nT>
        </p>
        <p class="why soft"><Fig :text="step.why" /></p>
        <p class="after">
          <ElButton v-if="canTakeBack" class="act" @click="takeBack">{{
            $t("Take the last tap back")
          }}</ElButton>
          <ElButton v-if="byEye" class="act" @click="clean">{{ $t("Clean already") }}</ElButton>
          <ElButton v-if="byEye" class="act" @click="more">{{ $t("One pass more") }}</ElButton>
          <ElButton
            v-if="canDoubt && !doubted && stage !== 'read' && stage !== 'stop' && !step.done"
            class="act"
            @click="doubted = true"
          >
            {{ $t("Something is off: read it") }}
          </ElButton>
          <ElButton class="act" @click="happened = true">{{ $t("Something happened") }}</ElButton>
        </p>
        <div v-if="following.length" class="strip" :aria-label="$t('Next at this setting')">
          <span class="label">{{ $t("Next at this setting") }}</span>
          <ElButton
            v-for="s in following.slice(0, 12)"
            :key="s.key"
            class="act"
            :class="{ waits: !s.ready }"
            @click="show(s)"
          >
            {{ s.piece }}
          </ElButton>
        </div>
      </section>
      <HappenedSheet
        v-model="happened"
        :project="pk"
        :layout="data.layout"
        :system="data.system"
        :marks="step.done ? step.gives : step.takes"
        :read="stopped"
        @replan="rest?.plan()"
      />
      <footer>
        <ElButton class="act side" :disabled="at === 0" :aria-label="$t('The step before')" @click="go(-1)"
          >←</ElButton
        >
        <ElButton v-if="button" class="act lead big" @click="forward">{{ button }}</ElButton>
        <span v-else class="waiting">{{
          stage === "stop" ? $t("Stopped by the reading") : $t("Read it, then go on")
        }}</span>
        <ElButton
          class="act side"
          :disabled="at >= steps.length - 1"
          :aria-label="$t('The step after')"
          @click="go(1)"
        >
          →
        </ElButton>
      </footer>
    </template>
  </main>
</template>

<style scoped>
.machine {
  min-height: 100dvh;
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
  padding: 0.8rem 1.4rem;
}
header {
  display: flex;
  gap: 1rem;
  align-items: center;
  font-weight: 600;
}
.grow {
  flex: 1;
  min-width: 0;
}
.held {
  background: var(--tape);
  padding: 0.3rem 0.7rem;
}
h1,
.say {
  overflow-wrap: anywhere;
}
.step,
.caution {
  flex: 1;
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
}
.caution {
  justify-content: center;
}
.where {
  font-size: 1.5rem;
  font-weight: 620;
}
h1 {
  font-size: clamp(1.8rem, 4vw, 3rem);
}
.caution {
  border-left: 14px solid var(--tape);
  padding-left: 1.6rem;
}
.caution li {
  font-size: clamp(1.2rem, 2.2vw, 1.7rem);
  margin-bottom: 0.7rem;
}
.large {
  gap: 0.8rem 3rem;
}
.large .figure {
  font-size: clamp(2.2rem, 5.4vw, 4.2rem);
  white-space: normal;
}
.large .label {
  font-size: 1.05rem;
}
.count .figure {
  color: var(--crayon-ink);
}
.feed {
  font-size: 1.3rem;
  color: var(--crayon-ink);
}
.say {
  font-size: clamp(1.05rem, 1.8vw, 1.45rem);
}
.lies {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 2.4rem;
}
@media (max-height: 820px) {
  .step {
    gap: 0.45rem;
  }
}
.why {
  font-size: 1.05rem;
  max-width: 60rem;
}
.verdict {
  border-left: 14px solid var(--chalk);
  padding: 0.5rem 1rem;
  font-size: clamp(1.2rem, 2.2vw, 1.7rem);
  background: var(--paper);
}
.verdict.stop {
  border-left-color: var(--crayon);
}
.after {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 0.8rem;
}
.strip {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
}
.strip .waits {
  color: var(--ink-soft);
  border-style: dashed;
}
footer {
  position: sticky;
  bottom: 0;
  display: grid;
  grid-template-columns: 5rem 1fr 5rem;
  gap: 0.8rem;
  padding: 0.6rem 0;
  background: var(--plaster);
}
.waiting {
  display: grid;
  place-items: center;
  min-height: 88px;
  font-size: 1.4rem;
  border: 2px dashed var(--ink-faint);
}
@media (max-width: 640px) {
  .machine {
    padding: 0.6rem 0.8rem;
  }
  .caution {
    padding-left: 0.9rem;
  }
  footer {
    grid-template-columns: 4rem minmax(0, 1fr) 4rem;
  }
}
.big {
  min-height: 88px;
  font-size: 2rem;
}
.side {
  font-size: 1.8rem;
}
</style>

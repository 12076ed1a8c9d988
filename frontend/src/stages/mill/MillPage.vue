<script setup lang="ts">
/** Mill: the shop's days, the steps board by board, schools, passes, whereabouts, and the machines. */
import { ElTabPane, ElTabs } from "element-plus";
import { computed, ref, useTemplateRef } from "vue";
import { useRoute, useRouter } from "vue-router";
import { useDays, useMilling, useSettings, type Method } from "../../api/milling";
import { nothingFromBoards } from "../../api/parts";
import { useProject } from "../../api/project";
import NotFromBoards from "../../controls/NotFromBoards.vue";
import BoardSteps from "./BoardSteps.vue";
import { lasting } from "./day";
import DayView from "./DayView.vue";
import HappenedSheet from "./HappenedSheet.vue";
import LogView from "./LogView.vue";
import OwnSteps from "./OwnSteps.vue";
import ProjectMachines from "./ProjectMachines.vue";
import PassesView from "./PassesView.vue";
import RestNote from "./RestNote.vue";
import SchoolsView from "./SchoolsView.vue";
import WhereView from "./WhereView.vue";
import UnplacedNote from "../../controls/UnplacedNote.vue";
import { t } from "../../i18n/i18n";

const { pk, project } = useProject();
const { data, error, mark } = useMilling(pk);
const { settings, change } = useSettings(pk);
/** A step done another way from now on. */
function choose(step: string, method: Method): void {
  void change((now) => ({ ...now, chosen: { ...now.chosen, [step]: method } }));
}
const layout = computed(() => data.value?.layout);
const { days, plan } = useDays(layout);
const steps = computed(() => data.value?.routes.flatMap((r) => r.steps) ?? []);
const done = computed(() => steps.value.filter((s) => s.done).length);
const left = computed(() => steps.value.reduce((sum, s) => sum + (s.done ? 0 : s.minutes), 0));
const VIEWS = [
  ["day", t("The days")],
  ["boards", t("Board by board")],
  ["schools", t("Orders of milling")],
  ["passes", t("See the passes")],
  ["where", t("Where it is")],
  ["log", t("What happened")],
  ["machines", t("The machines")],
] as const;
const happened = ref(false);
const rest = useTemplateRef("rest");
const route = useRoute();
const router = useRouter();
/** Which of them is shown stands in the address: it can be gone back to, and kept. */
const view = computed({
  get: () => String(route.query.view ?? "day"),
  set: (view) => void router.replace({ query: { view } }),
});
</script>

<template>
  <section v-if="project" class="stage">
    <div class="stage-head">
      <h1>{{ $t("Mill") }}</h1>
      <div v-if="data" class="figures grow">
        <div>
          <span class="figure"
            >{{ done }} <small>{{ $t("of {steps}", { steps: steps.length }) }}</small></span
          ><span class="label">{{ $t("steps done") }}</span>
        </div>
        <div>
          <span class="figure">{{ lasting(left) }}</span><span class="label">{{
            $t("at the machines still")
          }}</span>
        </div>
        <div v-if="days?.setups.length">
          <span class="figure">{{ days.changes }}</span><span class="label">{{
            $t("settings; board by board {piece_by_piece}, never under {least}", {
              piece_by_piece: days.piece_by_piece,
              least: days.least,
            })
          }}</span>
        </div>
      </div>
      <a v-if="data" class="act" :href="`/api/layouts/${data.layout}/routes.pdf`" download>{{
        $t("Route cards")
      }}</a>
      <RouterLink v-if="data" class="act lead" :to="{ name: 'machine', params: { project: pk } }">{{
        $t("To the machine")
      }}</RouterLink>
    </div>
    <NotFromBoards v-if="!data && nothingFromBoards(project.parts)" />
    <p v-else-if="error" class="first">
      {{ error.message }}.
      <RouterLink :to="{ name: 'layout', params: { project: pk } }">{{ $t("Go to Lay out.") }}</RouterLink>
    </p>
    <UnplacedNote />
    <RestNote ref="rest" />
    <p v-if="data?.stale" class="note">
      {{
        $t(
          "Parts, boards or the shop have changed since this plan was made: these steps are for the plan as it was.",
        )
      }}
    </p>
    <template v-if="data">
      <ElTabs v-model="view">
        <ElTabPane v-for="[key, word] in VIEWS" :key="key" :label="word" :name="key">
          <template v-if="view === key">
            <DayView v-if="key === 'day'" :data="data" :days="days" :project="pk" @plan="plan" />
            <BoardSteps v-else-if="key === 'boards'" :data="data" @mark="mark" @choose="choose" />
            <SchoolsView
              v-else-if="key === 'schools'"
              :project="pk"
              :system="data.system"
              :boards="data.routes.map((r) => r.board)"
            />
            <PassesView
              v-else-if="key === 'passes'"
              :layout="data.layout"
              :steps="steps"
              :system="data.system"
            />
            <WhereView v-else-if="key === 'where'" :where="data.where" />
            <LogView v-else-if="key === 'log'" :project="pk" @happened="happened = true" />
            <ProjectMachines v-else :project="pk" :system="data.system">
              <OwnSteps
                :own="settings?.own ?? []"
                :parts="project.parts"
                @change="change((now) => ({ ...now, own: $event }))"
              />
            </ProjectMachines>
          </template>
        </ElTabPane>
      </ElTabs>
      <HappenedSheet
        v-model="happened"
        :project="pk"
        :layout="data.layout"
        :system="data.system"
        :marks="[]"
        @replan="rest?.plan()"
      />
    </template>
  </section>
</template>

<style scoped>
.first {
  font-size: 1.15rem;
}
.figure small {
  font-size: 1rem;
  font-weight: 500;
}
</style>

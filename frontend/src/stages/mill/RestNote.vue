<script setup lang="ts">
/** What happened since the plan was made, and the one button that plans the rest round it. */
import { ElButton, ElProgress } from "element-plus";
import "element-plus/es/components/progress/style/css";
import { computed, ref, watch } from "vue";
import { useLayout } from "../../api/layout";
import { useHappenings, useRest } from "../../api/log";
import { useProject } from "../../api/project";
import { withErrorToast } from "../../controls/withErrorToast";
import { compared, type Stood } from "./rest";

const SECONDS = 5;
const { pk, project } = useProject();
const { data: rest } = useRest(pk);
const { data: layout } = useLayout(pk);
const { replan, fresh } = useHappenings(pk);
const note = ref<HTMLElement>();
const asked = ref<number>();
const before = ref<Stood>();
const latest = computed(() => layout.value?.latest);
const searching = computed(
  () => latest.value?.pk === asked.value && ["waiting", "searching"].includes(latest.value?.state ?? ""),
);
/** From the moment it is asked for. */
const running = computed(() => replan.isPending.value || searching.value);
const share = computed(() =>
  searching.value ? Math.min(100, Math.round((100 * latest.value!.spent) / (latest.value!.seconds || 1))) : 0,
);
const says = ref<string[]>([]);

async function plan(): Promise<void> {
  const stood = layout.value?.standing;
  note.value?.focus(); // the button goes, and the keys stay where they were
  says.value = [];
  before.value = stood ? { standing: stood, freed: rest.value?.freed ?? [] } : undefined;
  await withErrorToast(async () => {
    asked.value = (await replan.mutateAsync(SECONDS)).pk;
  });
}
/** The search may be over before its number is known here. */
watch([() => layout.value?.standing, asked], ([now]) => {
  if (!now?.plan || now.pk !== asked.value || !before.value) return;
  says.value = compared(before.value, now, project.value?.parts ?? []);
  before.value = undefined;
  fresh();
});
/** The list or the boards are others than when the wood was cut. */
const changed = computed(
  () => !!rest.value?.begun.length && !!layout.value?.standing?.stale && !rest.value.freed.length,
);
defineExpose({ plan });
</script>

<template>
  <section
    v-if="rest?.freed.length || changed || running || says.length"
    ref="note"
    tabindex="-1"
    class="rest"
    aria-live="polite"
  >
    <template v-if="running">
      <p>{{ $t("Planning the rest: what is done stands.") }}</p>
      <ElProgress :percentage="share" :stroke-width="14" :aria-label="$t('Planning the rest')" />
    </template>
    <template v-else-if="rest && (rest.freed.length || changed)">
      <p v-if="changed">
        {{
          $t(
            "The list or the boards have changed since this plan was made. What is made and wanted smaller now gets the steps for it.",
          )
        }}
      </p>
      <p v-else>{{ $t("Something happened that this plan does not know:") }}</p>
      <ul v-if="rest.freed.length">
        <li v-for="f in rest.freed" :key="f.piece">{{ f.says }}</li>
      </ul>
      <p>
        {{
          $t(
            "{finished} finished, {kept} in work stay as they are; {parts} to be laid out on {boards} boards and pieces.",
            { finished: rest.finished, kept: rest.kept, parts: rest.parts, boards: rest.boards },
          )
        }}
      </p>
      <ElButton class="act lead" :disabled="replan.isPending.value" @click="plan">{{
        $t("Plan the rest again")
      }}</ElButton>
    </template>
    <template v-else>
      <p>
        <b>{{ $t("The rest is planned again.") }}</b>
      </p>
      <ul>
        <li v-for="s in says" :key="s">{{ s }}</li>
      </ul>
      <ElButton class="act" @click="says = []">{{ $t("Good") }}</ElButton>
    </template>
  </section>
</template>

<style scoped>
.rest {
  padding: 0.7rem 1rem;
  background: var(--paper);
  border-left: 6px solid var(--crayon);
}
.rest:focus {
  outline: none;
}
.rest ul {
  margin: 0.3rem 0 0.6rem;
}
</style>

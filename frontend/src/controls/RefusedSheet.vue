<script setup lang="ts">
/** Edits of this project that were refused: what was typed is here, to be tried again or let go. */
import { ElButton } from "element-plus";
import { computed, ref } from "vue";
import { applied, touched, type Clash } from "../api/edits";
import { useProject } from "../api/project";
import { letGo, refusedEdits, type RefusedEdit } from "../api/refusedEdits";
import AppDialog from "./AppDialog.vue";
import DifferingTable from "./DifferingTable.vue";
import { t } from "../i18n/i18n";

const { pk, project, edit } = useProject();
const open = ref(false);
const mine = computed(() => refusedEdits.value.filter((e) => e.pk === pk.value));
const says = computed(() => t("{n} edit refused | {n} edits refused", mine.value.length));

/** What it wants of everything it touches, beside what stands. */
function wants(one: RefusedEdit): Clash[] {
  const now = project.value;
  if (!now) return [];
  const wanted = touched(applied(now, one.change), one.change);
  return touched(now, one.change).map((t, k) => ({ ...t, theirs: t.was, mine: wanted[k]?.was ?? null }));
}
function again(one: RefusedEdit): void {
  letGo(one.id);
  if (!mine.value.length) open.value = false;
  void edit(one.change);
}
function drop(one: RefusedEdit): void {
  letGo(one.id);
  if (!mine.value.length) open.value = false;
}
</script>

<template>
  <ElButton v-if="mine.length" class="act quiet refused" @click="open = true">{{ says }}</ElButton>
  <AppDialog v-model="open" :title="$t('Refused edits')" width="40rem">
    <p>
      {{ $t("They are not in the project. What you typed is kept in this browser until you let it go.") }}
    </p>
    <section v-for="one in mine" :key="one.id" class="one">
      <h2>{{ one.change.label }}</h2>
      <p class="note">{{ one.why }}</p>
      <DifferingTable v-for="c in wants(one)" :key="c.what + c.id" :clash="c" :system="project!.system" />
      <div class="foot">
        <ElButton class="act" @click="drop(one)">{{ $t("Let it go") }}</ElButton>
        <ElButton class="act lead" @click="again(one)">{{ $t("Try it again") }}</ElButton>
      </div>
    </section>
  </AppDialog>
</template>

<style scoped>
.refused {
  color: var(--crayon-ink);
}
.one {
  border-top: 1px solid var(--ink-faint);
  margin-top: 0.7rem;
  padding: 0.7rem 0;
}
.foot {
  display: flex;
  gap: 0.7rem;
  justify-content: flex-end;
  margin-top: 0.7rem;
}
</style>

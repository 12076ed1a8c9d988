<script setup lang="ts">
/** Plans kept by name; one of them beside the plan that stands, with what differs. */
import { ElButton } from "element-plus";
import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { computed, ref } from "vue";
import { api, type Layout } from "../../api/client";
import BoardDrawing from "../../board/BoardDrawing.vue";
import type { Plan } from "../../board/geometry";
import { withErrorToast } from "../../controls/withErrorToast";
import type { System } from "../../measure";
import { differences } from "./compare";
import { TICKS_PER_INCH } from "../../measure";
import { money } from "../../money";

const props = defineProps<{
  project: number;
  standing: Layout;
  system: System;
  width: number;
  face: "A" | "B";
}>();
const emit = defineEmits<{ stood: [] }>();
const client = useQueryClient();
const name = ref("");
const against = ref(0);
const { data: kept } = useQuery({
  queryKey: computed(() => ["plans", props.project]),
  queryFn: async () =>
    (await api.GET("/api/projects/{project}/plans", { params: { path: { project: props.project } } })).data!
      .plans,
});
const { data: other } = useQuery({
  queryKey: computed(() => ["plan", against.value]),
  queryFn: async () =>
    (await api.GET("/api/layouts/{layout}", { params: { path: { layout: against.value } } })).data!,
  enabled: computed(() => against.value > 0),
});
const plan = computed(() => props.standing.plan!);
const theirs = computed(() => other.value?.plan ?? undefined);
const what = computed(() => (theirs.value ? differences(plan.value, theirs.value) : null));
const longest = computed(() => Math.max(1, ...props.standing.boards.map((b) => b.length)));
const scale = computed(() => (props.width - 60) / (longest.value / TICKS_PER_INCH));
const cuts = (p: Plan | undefined, board: string) => p?.boards.find((b) => b.board === board)?.segments ?? [];
const percent = (share: number) => `${(share * 100).toFixed(1)} %`;

async function keep(): Promise<void> {
  if (!name.value.trim()) return;
  await withErrorToast(async () => {
    await api.PUT("/api/layouts/{layout}/name", {
      params: { path: { layout: props.standing.pk } },
      body: { name: name.value.trim() },
    });
    name.value = "";
    await client.invalidateQueries({ queryKey: ["plans", props.project] });
    await client.invalidateQueries({ queryKey: ["layout", props.project] });
  });
}
async function stand(pk: number): Promise<void> {
  await withErrorToast(async () => {
    await api.POST("/api/layouts/{layout}/stand", { params: { path: { layout: pk } } });
    against.value = 0;
    emit("stood");
  });
}
async function drop(pk: number): Promise<void> {
  await withErrorToast(async () => {
    await api.PUT("/api/layouts/{layout}/name", { params: { path: { layout: pk } }, body: { name: "" } });
    if (against.value === pk) against.value = 0;
    await client.invalidateQueries({ queryKey: ["plans", props.project] });
  });
}
</script>

<template>
  <section class="kept" :aria-label="$t('Plans kept')">
    <form class="row" @submit.prevent="keep">
      <label class="field"
        ><span>{{ $t("Keep this plan as") }}</span
        ><input
          v-model="name"
          class="line-input"
          maxlength="80"
          :placeholder="standing.name || $t('a name for it')"
      /></label>
      <ElButton class="act" :disabled="!name.trim()" native-type="submit">{{ $t("Keep it") }}</ElButton>
    </form>
    <table v-if="kept?.length" class="ruled">
      <thead>
        <tr>
          <th>{{ $t("Plan") }}</th>
          <th>{{ $t("Cost") }}</th>
          <th>{{ $t("Boards") }}</th>
          <th>{{ $t("Becomes parts") }}</th>
          <th>{{ $t("Left out") }}</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr>
          <td>
            <b>{{ $t("the one that stands") }}</b>{{ standing.name ? ` (${standing.name})` : "" }}
          </td>
          <td>{{ standing.cost === null ? "" : money(standing.cost) }}</td>
          <td>{{ plan.boards.length }}</td>
          <td>{{ percent(standing.yields) }}</td>
          <td>{{ plan.unplaced.length || $t("none") }}</td>
          <td />
        </tr>
        <tr v-for="k in kept" :key="k.pk" :class="{ on: against === k.pk }">
          <td>
            {{ k.name }}<span v-if="k.stale" class="soft">{{ $t(", made before the last changes") }}</span>
          </td>
          <td>{{ money(k.cost) }}</td>
          <td>{{ k.boards }}</td>
          <td>{{ percent(k.yields) }}</td>
          <td>{{ k.unplaced || $t("none") }}</td>
          <td class="acts">
            <ElButton
              class="act quiet"
              :aria-pressed="against === k.pk"
              @click="against = against === k.pk ? 0 : k.pk"
            >
              {{ against === k.pk ? $t("Put away") : $t("Hold against it") }}
            </ElButton>
            <ElButton class="act quiet" @click="stand(k.pk)">{{ $t("Let it stand") }}</ElButton>
            <ElButton
              class="act quiet"
              :aria-label="$t('Forget {name}', { name: k.name })"
              @click="drop(k.pk)"
              >{{ $t("Forget") }}</ElButton
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else class="soft">
      {{ $t("No plan is kept by a name yet. Keep this one before you try something bold.") }}
    </p>
    <template v-if="what && other">
      <p v-if="!what.boards.length" class="note">{{ $t("The two lie the same.") }}</p>
      <template v-else>
        <p v-if="what.moved.length" class="moved">
          <b>{{ $t("On another board in {name}:", { name: other.name }) }}</b>
          <span v-for="m in what.moved" :key="m.item"
            >{{ m.item }} {{ m.from || $t("nowhere") }} → {{ m.to || $t("nowhere") }}</span
          >
        </p>
        <p v-else class="soft">{{ $t("All pieces lie on the same boards, some in other places.") }}</p>
        <div v-for="b in standing.boards.filter((x) => what!.boards.includes(x.id))" :key="b.id" class="pair">
          <b>{{ b.id }}</b>
          <span class="label">{{ $t("stands") }}</span>
          <BoardDrawing
            :board="b"
            :scale="scale"
            :system="system"
            :face="face"
            :segments="cuts(plan, b.id)"
            :parts="standing.parts"
            :faded="!cuts(plan, b.id).length"
          />
          <span class="label">{{ other.name }}</span>
          <BoardDrawing
            :board="other.boards.find((x) => x.id === b.id) ?? b"
            :scale="scale"
            :system="system"
            :face="face"
            :segments="cuts(theirs, b.id)"
            :parts="other.parts"
            :faded="!cuts(theirs, b.id).length"
          />
        </div>
      </template>
    </template>
  </section>
</template>

<style scoped>
.kept {
  border-top: 6px solid var(--ink);
  padding: 0.8rem 0 1.2rem;
}
.row {
  display: flex;
  gap: 0.6rem;
  align-items: flex-end;
  margin-bottom: 0.6rem;
}
.on {
  background: var(--plaster-deep);
}
.acts {
  text-align: right;
  white-space: nowrap;
}
.moved span {
  display: inline-block;
  margin-left: 0.9rem;
}
.pair {
  margin-top: 0.9rem;
}
.pair .label {
  display: block;
}
</style>

<script setup lang="ts">
/** A newer version of a drawing: what changed, part by part, before anything is replaced. */
import { ElButton } from "element-plus";
import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { computed, ref } from "vue";
import { api, type Drawing, type Found, type Part, type Schemas } from "../../api/client";
import { partsFrom } from "../../api/parts";
import { useProject } from "../../api/project";
import Len from "../../controls/Len.vue";
import { withErrorToast } from "../../controls/withErrorToast";
import AppDialog from "../../controls/AppDialog.vue";
import { t } from "../../i18n/i18n";

type Difference = Schemas["DifferenceBody"];
const props = defineProps<{ drawing: Drawing; before: string }>();
const emit = defineEmits<{ close: [] }>();
const { pk, project, edit } = useProject();
const client = useQueryClient();
const open = ref(true);
const kept = ref(new Set<number>());

const { data, error } = useQuery({
  queryKey: computed(() => ["changes", props.drawing.pk]),
  queryFn: async () =>
    (await api.GET("/api/drawings/{drawing}/changes", { params: { path: { drawing: props.drawing.pk } } }))
      .data!.differences,
});
const changed = computed(() => data.value?.filter((d) => d.what[0] !== "same").length ?? 0);
const WORDS: Record<string, string> = {
  same: t("as it was"),
  size: t("other size"),
  count: t("other count"),
  name: "renamed",
  new: "new",
  gone: "gone",
};

function keep(i: number): void {
  const now = new Set(kept.value);
  if (!now.delete(i)) now.add(i);
  kept.value = now;
}
/** The part on the list as the newer drawing has it; what the maker has set by hand there stays. */
function followed(d: Difference): (Part & { was?: string }) | undefined {
  const part = project.value!.parts.find((p) => p.id === d.part);
  if (!part || !d.after || !d.before) return undefined;
  const sizes = ["length", "width", "thickness", "quantity"] as const;
  const values: Partial<Part> = {
    source: { drawing: props.drawing.pk, key: d.after.key },
    outline: d.after.outline,
  };
  for (const s of sizes) if (d.after[s] !== d.before[s] && d.after[s]) values[s] = d.after[s];
  if (d.after.name !== d.before.name) values.name = d.after.name;
  const formulas = { ...part.formulas };
  for (const s of sizes) if (s in values) delete formulas[s];
  return { ...part, ...values, formulas };
}
async function takeOver(): Promise<void> {
  const now = project.value!;
  const take = (data.value ?? []).filter((_, i) => !kept.value.has(i));
  const puts = take.map(followed).filter((p) => p !== undefined);
  const stay = (data.value ?? [])
    .filter((d, i) => kept.value.has(i) && d.part && d.after)
    .map((d) => {
      const part = now.parts.find((p) => p.id === d.part)!;
      return { ...part, source: { drawing: props.drawing.pk, key: d.after!.key } };
    });
  const fresh = take.filter((d) => d.what[0] === "new").map((d) => d.after!) as Found[];
  const added = partsFrom(
    now,
    props.drawing.pk,
    fresh.filter((f) => f.thickness),
    now.parts.at(-1)?.species ?? "white oak",
    0,
  );
  const gone = take.filter((d) => d.what[0] === "gone" && d.part).map((d) => d.part);
  await withErrorToast(async () => {
    const saved = await edit({
      label: t("newer {name}", { name: props.drawing.name }),
      put_parts: [...puts, ...stay, ...added],
      remove_parts: gone,
    });
    if (!saved) return;
    await api.POST("/api/drawings/{drawing}/take-over", { params: { path: { drawing: props.drawing.pk } } });
    await client.invalidateQueries({ queryKey: ["drawings", pk.value] });
    emit("close");
  });
}
async function leave(): Promise<void> {
  await withErrorToast(async () => {
    await api.DELETE("/api/drawings/{drawing}", { params: { path: { drawing: props.drawing.pk } } });
    await client.invalidateQueries({ queryKey: ["drawings", pk.value] });
    emit("close");
  });
}
</script>

<template>
  <AppDialog
    v-model="open"
    :title="$t('A newer {name}', { name: drawing.name })"
    width="58rem"
    @closed="emit('close')"
  >
    <div v-if="project" class="body">
      <p v-if="error" class="note">{{ error.message }}</p>
      <p v-else>
        {{
          changed
            ? $t("{changed} of {data} differ from {before}. Nothing is replaced yet.", {
                changed,
                data: data?.length,
                before,
              })
            : $t("Nothing has changed in it.")
        }}
      </p>
      <table v-if="data?.length" class="ruled">
        <thead>
          <tr>
            <th>{{ $t("Take") }}</th>
            <th>{{ $t("Part") }}</th>
            <th>{{ $t("What changed") }}</th>
            <th class="num">{{ $t("Before") }}</th>
            <th class="num">{{ $t("Now") }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(d, i) in data" :key="i" :class="{ same: d.what[0] === 'same' }">
            <td>
              <input
                v-if="d.what[0] !== 'same'"
                type="checkbox"
                :checked="!kept.has(i)"
                :aria-label="$t('Take the change of {name}', { name: (d.after ?? d.before)!.name })"
                @change="keep(i)"
              />
            </td>
            <td>
              <b>{{ d.part }}</b> {{ (d.after ?? d.before)!.name }}
            </td>
            <td>{{ d.what.map((w) => WORDS[w]).join(", ") }}</td>
            <td v-for="side in ['before', 'after'] as const" :key="side" class="num">
              <template v-if="d[side]"
                >{{ d[side].quantity }} ×
                <Len :ticks="d[side].length" :system="project.system" bare nearest /> ×
                <Len :ticks="d[side].width" :system="project.system" bare nearest /> ×
                <Len :ticks="d[side].thickness" :system="project.system" bare nearest
              /></template>
            </td>
          </tr>
        </tbody>
      </table>
      <div class="buttons">
        <ElButton class="act lead" :disabled="!data" @click="takeOver">{{ $t("Take it over") }}</ElButton>
        <ElButton class="act" @click="leave">{{ $t("Leave the list as it is, forget this file") }}</ElButton>
      </div>
    </div>
  </AppDialog>
</template>

<style scoped>
.body {
  display: flex;
  flex-direction: column;
  gap: 1rem;
}
.same {
  color: var(--ink-soft);
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}
input {
  width: 18px;
  height: 18px;
  accent-color: var(--chalk);
}
</style>

<script setup lang="ts">
/** What a pasted table was understood as, beside what was not, before anything is added. */
import { ElButton } from "element-plus";
import { keepPreviousData, useQuery } from "@tanstack/vue-query";
import { computed, ref, watch } from "vue";
import { api, type Schemas } from "../../api/client";
import { useProject } from "../../api/project";
import Len from "../../controls/Len.vue";
import { withErrorToast } from "../../controls/withErrorToast";
import { FACES } from "./grid";
import ListColumns from "./ListColumns.vue";
import AppDialog from "../../controls/AppDialog.vue";
import { t } from "../../i18n/i18n";

const props = defineProps<{ text: string }>();
const emit = defineEmits<{ close: []; added: [] }>();
const { pk, project, edit } = useProject();
const species = ref("");
const open = ref(true);
type Answers = Schemas["ListAnswersBody"];
const answers = ref<Answers>({ unit: null, columns: {}, order: "", thousands: null, confirmed: false });

const { data, error, isFetching } = useQuery({
  queryKey: computed(() => ["read-list", pk.value, props.text, species.value, answers.value]),
  queryFn: async () =>
    (
      await api.POST("/api/projects/{project}/read-list", {
        params: { path: { project: pk.value } },
        body: { text: props.text, species: species.value, answers: answers.value },
      })
    ).data!,
  gcTime: 0,
  placeholderData: keepPreviousData,
});
const columns = ref(false);
/** Columns that were asked about stay in question until they are said to be right, changed or not. */
const inQuestion = ref(false);
/** Their headings: only what such hold is remembered, never another meaning for a word that is known. */
const unknown = ref(new Set<string>());
watch(data, (now) => {
  if (!now?.questions.some((q) => q.kind === "columns")) return;
  inQuestion.value = true;
  unknown.value = new Set(now.columns.filter((c) => !c.sure).map((c) => c.heading));
});
const questions = computed(() => data.value?.questions.filter((q) => q.kind !== "columns") ?? []);
/** Some row names no wood. */
const asksWood = computed(
  () =>
    !!species.value ||
    (!!data.value &&
      (!data.value.columns.some((c) => c.meaning === "species") ||
        data.value.questions.some((q) => q.kind === "wood"))),
);
function confirm(): void {
  inQuestion.value = false;
  answers.value = { ...answers.value, confirmed: true };
}
/** Rows that no answer above will mend. */
const refused = computed(() =>
  data.value?.questions.length || inQuestion.value ? [] : (data.value?.refused ?? []),
);
/** What was said of a heading now, or is right as proposed, holds for every list that comes. */
async function remember(meanings: NonNullable<Answers["columns"]>): Promise<void> {
  if (!Object.keys(meanings).length) return;
  await withErrorToast(async () => {
    await api.PUT("/api/headings", { body: { meanings } });
  });
}
function change(heading: string, meaning: NonNullable<Answers["columns"]>[string]): void {
  // The others stay as they are shown: none is proposed anew because of one that was changed.
  const shown = Object.fromEntries(data.value!.columns.map((c) => [c.heading, c.meaning])) as NonNullable<
    Answers["columns"]
  >;
  answers.value = { ...answers.value, columns: { ...shown, [heading]: meaning } };
}
function reply(question: Schemas["QuestionBody"], value: string): void {
  if (question.kind === "unit") answers.value = { ...answers.value, unit: value as Answers["unit"] };
  if (question.kind === "order") answers.value = { ...answers.value, order: value as Answers["order"] };
  if (question.kind === "thousands") answers.value = { ...answers.value, thousands: value === "yes" };
  if (question.kind === "wood") species.value = value;
}

function add(): void {
  const parts = data.value?.parts ?? [];
  if (!parts.length || data.value?.questions.length || inQuestion.value) return;
  const meant = data
    .value!.columns.filter((c) => unknown.value.has(c.heading))
    .map((c) => [c.heading, c.meaning] as const);
  void remember(Object.fromEntries(meant) as NonNullable<Answers["columns"]>);
  void edit({
    label: t("a pasted part | {n} pasted parts", parts.length),
    put_parts: parts,
  });
  emit("added");
  close();
}
function close(): void {
  open.value = false;
  emit("close");
}
</script>

<template>
  <AppDialog v-model="open" :title="$t('Read from the list')" width="56rem" @closed="emit('close')">
    <div v-if="project" class="body">
      <p v-if="error" class="note">{{ error.message }}</p>
      <div v-if="inQuestion && data" class="ask" data-question="columns">
        <b>{{
          $t("Are these columns right? What is not known by its heading is proposed from what stands in it.")
        }}</b>
        <ListColumns :columns="data.columns" @change="change" />
        <div class="row">
          <ElButton class="act lead" @click="confirm">{{ $t("They are right") }}</ElButton>
        </div>
      </div>
      <div v-for="q in questions" :key="q.kind" class="ask" :data-question="q.kind">
        <b>{{ q.says }}</b>
        <div class="row">
          <ElButton v-for="o in q.options" :key="o.value" class="act" @click="reply(q, o.value)">
            {{ o.says }}
          </ElButton>
        </div>
      </div>
      <label v-if="asksWood" class="field wood"
        ><span>{{ $t("Wood where a row names none") }}</span
        ><input v-model.lazy="species" class="line-input" :placeholder="$t('white oak')"
      /></label>
      <div
        v-if="data?.parts.length"
        class="scroll"
        tabindex="0"
        role="region"
        :aria-label="$t('The rows that were read')"
      >
        <table class="ruled">
          <thead>
            <tr>
              <th>{{ $t("Mark") }}</th>
              <th>{{ $t("Part") }}</th>
              <th class="num">{{ $t("Count") }}</th>
              <th class="num">{{ $t("Length") }}</th>
              <th class="num">{{ $t("Width") }}</th>
              <th class="num">{{ $t("Thickness") }}</th>
              <th>{{ $t("Wood") }}</th>
              <th>{{ $t("Faces") }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="p in data.parts" :key="p.id">
              <td>
                <b>{{ p.id }}</b>
              </td>
              <td>{{ p.name }}</td>
              <td class="num">{{ p.quantity }}</td>
              <td class="num"><Len :ticks="p.length" :system="project.system" /></td>
              <td class="num"><Len :ticks="p.width" :system="project.system" /></td>
              <td class="num"><Len :ticks="p.thickness" :system="project.system" /></td>
              <td>{{ p.species }}</td>
              <td>{{ FACES[p.faces] }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <template v-if="data?.columns.length && !inQuestion">
        <ElButton class="act quiet change" :aria-expanded="columns" @click="columns = !columns">
          {{ $t("{columns} what the columns hold", { columns: columns ? $t("Hide") : $t("Change") }) }}
        </ElButton>
        <ListColumns v-if="columns" :columns="data.columns" @change="change" />
        <p v-if="data.remembered.length" class="soft">
          {{
            $t("As you said before of these headings: {remembered}.", {
              remembered: data.remembered.join(", "),
            })
          }}
        </p>
      </template>
      <p v-if="data?.noted.length" class="note">
        {{
          $t("Not columns of the list, so kept in each part's note: {noted}.", {
            noted: data.noted.join(", "),
          })
        }}
      </p>
      <div v-if="refused.length" class="refused">
        <h3>{{ $t("Not understood") }}</h3>
        <p v-for="r in refused" :key="r.row" class="note">
          <span
            ><b>{{ $t("Row {row}:", { row: r.row }) }}</b> <code>{{ r.text }}</code><br />{{ r.why }}</span
          >
        </p>
      </div>
      <p v-if="data && !data.parts.length && !data.refused.length && !data.questions.length">
        {{ $t("There are no rows in it.") }}
      </p>
      <div class="buttons">
        <ElButton
          class="act lead"
          :disabled="!data?.parts.length || !!data.questions.length || inQuestion || isFetching"
          @click="add"
        >
          {{ $t("Add {n} part | Add {n} parts", data?.parts.length ?? 0) }}
        </ElButton>
        <ElButton class="act" @click="close">{{ $t("Leave it") }}</ElButton>
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
.ask {
  border-left: 8px solid var(--tape);
  background: var(--paper);
  padding: 0.7rem 0.9rem;
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.change {
  align-self: flex-start;
}
.wood {
  max-width: 18rem;
}
.scroll {
  overflow: auto;
  max-height: 45vh;
}
.refused {
  display: flex;
  flex-direction: column;
  gap: 0.4rem;
}
.buttons {
  display: flex;
  gap: 0.6rem;
}
</style>

<script setup lang="ts">
/**
 * The orders of milling side by side on this job, the one taken, and exceptions for a board, a part
 * or a piece.
 */
import { I18nT } from "vue-i18n";
import { ElButton, ElSkeleton } from "element-plus";
import "element-plus/es/components/skeleton/style/css";
import { useQuery } from "@tanstack/vue-query";
import { computed, ref, toRef } from "vue";
import { api } from "../../api/client";
import { useSettings, type Settings } from "../../api/milling";
import Fig from "../../controls/Fig.vue";
import Len from "../../controls/Len.vue";
import type { System } from "../../measure";
import { lasting } from "./day";
import ChoiceField from "../../controls/fields/ChoiceField.vue";

const props = defineProps<{ project: number; system: System; boards: string[] }>();
const { settings, change } = useSettings(toRef(props, "project"));
const { data, error } = useQuery({
  queryKey: computed(() => ["schools", props.project]),
  queryFn: async () =>
    (await api.GET("/api/projects/{project}/schools", { params: { path: { project: props.project } } }))
      .data!,
});
type School = Settings["school"];
const who = ref("");
const how = ref<School>("by-hand");
const title = (school: string) => data.value?.schools.find((s) => s.school === school)?.title ?? school;

function take(school: string): void {
  void change((now) => ({ ...now, school: school as School }));
}
function except(): void {
  if (!who.value.trim()) return;
  const [name, chosen] = [who.value.trim(), how.value];
  void change((now) => ({ ...now, exceptions: { ...now.exceptions, [name]: chosen } }));
  who.value = "";
}
function drop(name: string): void {
  void change((now) => ({
    ...now,
    exceptions: Object.fromEntries(Object.entries(now.exceptions).filter(([n]) => n !== name)),
  }));
}
</script>

<template>
  <p v-if="error && !data" class="note" role="alert">{{ error.message }}.</p>
  <ElSkeleton v-else-if="!data || !settings" :rows="8" animated />
  <div v-else>
    <p class="advice">
      <I18nT keypath="{order} is the one to take here: {why}." scope="global"
        ><template #order
          ><b>{{ title(data.advised) }}</b></template
        ><template #why><Fig :text="data.why" /></template
      ></I18nT>
    </p>
    <div class="scroll" tabindex="0" role="region" :aria-label="$t('Orders of milling compared')">
      <table class="ruled">
        <thead>
          <tr>
            <th>{{ $t("Order") }}</th>
            <th class="num">{{ $t("At work") }}</th>
            <th class="num">{{ $t("Passes") }}</th>
            <th class="num">{{ $t("Settings") }}</th>
            <th class="num">{{ $t("Rests") }}</th>
            <th class="num">{{ $t("Spare, thinnest place") }}</th>
            <th class="num">{{ $t("By hand") }}</th>
            <th class="num">{{ $t("Not here") }}</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="s in data.schools" :key="s.school" :class="{ taken: s.school === settings.school }">
            <td>
              <b>{{ s.title }}</b>
              <p class="soft">
                {{ $t("{steps}. For {good_for}.", { steps: s.steps, good_for: s.good_for }) }}
              </p>
            </td>
            <td class="num">{{ lasting(s.minutes) }}</td>
            <td class="num">{{ s.passes }}</td>
            <td class="num">{{ s.setups }}</td>
            <td class="num">
              {{ s.rest >= 1440 ? `${s.rest / 1440} d` : s.rest ? lasting(s.rest) : $t("none") }}
            </td>
            <td class="num"><Len :ticks="Math.max(0, s.spare)" :system="system" about /></td>
            <td class="num">{{ s.by_hand || $t("none") }}</td>
            <td class="num">
              <b v-if="s.not_here">{{ s.not_here }}</b><template v-else>{{ $t("none") }}</template>
            </td>
            <td>
              <span v-if="s.school === settings.school" class="mark">{{ $t("taken") }}</span><ElButton
                v-else
                class="act"
                @click="take(s.school)"
                >{{ $t("Take it") }}</ElButton
              >
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <h2>{{ $t("Another order for") }}</h2>
    <p class="soft">
      {{ $t("A board ({board}), a piece of it ({board}.1) or a part by its mark.", { board: boards[0] }) }}
    </p>
    <ul class="except">
      <li v-for="(school, name) in settings.exceptions" :key="name">
        <b>{{ name }}</b>: {{ title(school) }}
        <ElButton
          class="act quiet"
          :aria-label="$t('{name} like the rest', { name })"
          @click="drop(String(name))"
        >
          {{ $t("like the rest") }}
        </ElButton>
      </li>
    </ul>
    <form class="add" @submit.prevent="except">
      <label class="field"
        ><span>{{ $t("Board, piece or part") }}</span
        ><input v-model="who" class="line-input" maxlength="60"
      /></label>
      <ChoiceField
        v-model="how"
        :label="$t('Its order')"
        :options="data.schools.map((s) => [s.school, s.title] as const)"
      />
      <ElButton class="act" native-type="submit">{{ $t("Set it") }}</ElButton>
    </form>
  </div>
</template>

<style scoped>
.advice {
  font-size: 1.15rem;
  margin-bottom: 1rem;
  padding-left: 0.9rem;
  border-left: 6px solid var(--tape);
}
.scroll {
  overflow-x: auto;
  margin-bottom: 1.6rem;
}
.scroll td:first-child {
  min-width: 13rem;
}
tr.taken td {
  background: var(--chalk-wash);
}
.mark {
  font-weight: 700;
  color: var(--chalk-ink);
}
td p {
  max-width: 30rem;
}
.except {
  list-style: none;
  padding: 0;
}
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem;
  align-items: end;
}
</style>

<script setup lang="ts">
/**
 * The orders of milling side by side on this job, the one taken, and exceptions for a board, a part
 * or a piece.
 */
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
      <b>{{ title(data.advised) }}</b> is the one to take here: <Fig :text="data.why" />.
    </p>
    <div class="scroll" tabindex="0" role="region" aria-label="Orders of milling compared">
      <table class="ruled">
        <thead>
          <tr>
            <th>Order</th>
            <th class="num">At work</th>
            <th class="num">Passes</th>
            <th class="num">Settings</th>
            <th class="num">Rests</th>
            <th class="num">Spare, thinnest place</th>
            <th class="num">By hand</th>
            <th class="num">Not here</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="s in data.schools" :key="s.school" :class="{ taken: s.school === settings.school }">
            <td>
              <b>{{ s.title }}</b>
              <p class="soft">{{ s.steps }}. For {{ s.good_for }}.</p>
            </td>
            <td class="num">{{ lasting(s.minutes) }}</td>
            <td class="num">{{ s.passes }}</td>
            <td class="num">{{ s.setups }}</td>
            <td class="num">
              {{ s.rest >= 1440 ? `${s.rest / 1440} d` : s.rest ? lasting(s.rest) : "none" }}
            </td>
            <td class="num"><Len :ticks="Math.max(0, s.spare)" :system="system" about /></td>
            <td class="num">{{ s.by_hand || "none" }}</td>
            <td class="num">
              <b v-if="s.not_here">{{ s.not_here }}</b><template v-else>none</template>
            </td>
            <td>
              <span v-if="s.school === settings.school" class="mark">taken</span
              ><ElButton v-else class="act" @click="take(s.school)">Take it</ElButton>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <h2>Another order for</h2>
    <p class="soft">A board ({{ boards[0] }}), a piece of it ({{ boards[0] }}.1) or a part by its mark.</p>
    <ul class="except">
      <li v-for="(school, name) in settings.exceptions" :key="name">
        <b>{{ name }}</b>: {{ title(school) }}
        <ElButton class="act quiet" :aria-label="`${name} like the rest`" @click="drop(String(name))">
          like the rest
        </ElButton>
      </li>
    </ul>
    <form class="add" @submit.prevent="except">
      <label class="field"
        ><span>Board, piece or part</span><input v-model="who" class="line-input" maxlength="60"
      /></label>
      <ChoiceField
        v-model="how"
        label="Its order"
        :options="data.schools.map((s) => [s.school, s.title] as const)"
      />
      <ElButton class="act" native-type="submit">Set it</ElButton>
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

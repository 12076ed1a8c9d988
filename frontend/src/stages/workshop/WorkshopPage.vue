<script setup lang="ts">
/** A workshop: its machines and people, what it has learned, and the books of all projects made in it. */
import { useQueryClient } from "@tanstack/vue-query";
import { useLocalStorage } from "@vueuse/core";
import { ElButton, ElPopconfirm, ElTabPane, ElTabs } from "element-plus";
import "element-plus/es/components/popconfirm/style/css";
import { computed, watch } from "vue";
import { useRoute, useRouter } from "vue-router";
import { api } from "../../api/client";
import { useWorkshop, useWorkshops, type Shared } from "../../api/workshop";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import TextField from "../../controls/fields/TextField.vue";
import { withErrorToast } from "../../controls/withErrorToast";
import { currencies, currency } from "../../money";
import { SYSTEMS, type System } from "../../measure";
import MachinesView from "../mill/MachinesView.vue";
import LearnedView from "./LearnedView.vue";
import PeopleView from "./PeopleView.vue";
import RoomView from "./RoomView.vue";
import ShopBooks from "./ShopBooks.vue";
import { t } from "../../i18n/i18n";

const route = useRoute();
const router = useRouter();
const client = useQueryClient();
const system = useLocalStorage<System>("stock-system", "in");
const { data: all, error } = useWorkshops();
const pk = computed(() => Number(route.params.workshop) || (all.value?.[0]?.pk ?? NaN));
const kept = computed(() => all.value?.find((w) => w.pk === pk.value));
const { value, refusals, change } = useWorkshop(pk);
const VIEWS = [
  ["machines", t("The machines")],
  ["room", t("Air and instruments")],
  ["people", t("People")],
  ["learned", t("What it has learned")],
  ["books", t("Books of all projects")],
] as const;
const view = computed({
  get: () => String(route.query.view ?? "machines"),
  set: (view) => void router.replace({ query: { view } }),
});
function go(workshop: number): void {
  void router.push({ name: "workshop", params: { workshop }, query: { view: view.value } });
}
const set = (make: (now: Shared) => Shared): Promise<void> =>
  change((now) => ({ ...now, workshop: { ...now.workshop, ...make(now.workshop) } }));
function rename(name: string): void {
  if (name && name !== value.value?.name) void change((now) => ({ ...now, name }));
}
function pay(code: string): void {
  void change((now) => ({ ...now, workshop: { ...now.workshop, currency: code } }));
}
watch(
  () => value.value?.workshop.currency,
  (code) => {
    if (code !== undefined) currency.value = code;
  },
);
const add = () =>
  withErrorToast(async () => {
    const body = { name: t("Another workshop"), like: pk.value };
    const made = (await api.POST("/api/workshops", { body })).data!;
    await client.invalidateQueries({ queryKey: ["workshops"] });
    go(made.pk);
  });
const remove = () =>
  withErrorToast(async () => {
    await api.DELETE("/api/workshops/{workshop}", { params: { path: { workshop: pk.value } } });
    await client.invalidateQueries({ queryKey: ["workshops"] });
    void router.push({ name: "workshop", params: { workshop: "" } });
  });
const projects = (many: number) =>
  many === 0
    ? t("No project is made in it yet.")
    : t("{n} project is made in it. | {n} projects are made in it.", many);
</script>

<template>
  <main class="shop">
    <header class="stage-head">
      <RouterLink to="/" class="act quiet">{{ $t("← The shelf") }}</RouterLink>
      <h1 class="grow">{{ $t("Workshop") }}</h1>
      <ChoiceField
        v-if="all && all.length > 1"
        class="units"
        :label="$t('Which one')"
        :options="all.map((w) => [w.pk, w.name] as const)"
        :model-value="pk"
        @update:model-value="$event && go($event)"
      />
      <ChoiceField v-model="system" class="units" :label="$t('Measured in')" :options="SYSTEMS" />
      <ChoiceField
        v-if="value"
        class="units"
        :label="$t('Money in')"
        :options="currencies()"
        :model-value="value.workshop.currency"
        @update:model-value="pay($event ?? '')"
      />
      <ElButton v-if="kept" class="act" @click="add">{{ $t("Another workshop like it") }}</ElButton>
    </header>
    <p v-if="error" class="note">{{ error.message }}</p>
    <p v-else-if="all && !all.length" class="note">
      {{ $t("There is no workshop yet: the first project you start opens one.") }}
      <RouterLink to="/">{{ $t("Go to the shelf.") }}</RouterLink>
    </p>
    <template v-if="value && kept">
      <div class="named">
        <label class="field"
          ><span>{{ $t("Its name") }}</span>
          <TextField :key="refusals" :model-value="value.name" @update:model-value="rename" />
        </label>
        <p class="soft">
          {{
            $t("{projects} New projects begin in {name}.", {
              projects: projects(kept.projects),
              name: all![0]!.name,
            })
          }}
        </p>
        <ElPopconfirm
          v-if="!kept.projects && all!.length > 1"
          :title="$t('Take this workshop away?')"
          :confirm-button-text="$t('Take it away')"
          :cancel-button-text="$t('Leave it')"
          @confirm="remove"
        >
          <template #reference
            ><ElButton class="act quiet">{{ $t("Take it away") }}</ElButton></template
          >
        </ElPopconfirm>
      </div>
      <ElTabs v-model="view">
        <ElTabPane v-for="[key, word] in VIEWS" :key="key" :label="word" :name="key">
          <template v-if="view === key">
            <MachinesView
              v-if="key === 'machines'"
              :key="`${pk} ${refusals}`"
              :settings="value.workshop"
              :system="system"
              :change="set"
            />
            <RoomView
              v-else-if="key === 'room'"
              :workshop="value.workshop"
              @change="change((now) => ({ ...now, workshop: $event(now.workshop) }))"
            />
            <PeopleView
              v-else-if="key === 'people'"
              :people="value.workshop.people"
              @change="change((now) => ({ ...now, workshop: { ...now.workshop, people: $event } }))"
            />
            <LearnedView
              v-else-if="key === 'learned'"
              :workshop="pk"
              :system="system"
              :over="value.workshop.over"
              @over="change((now) => ({ ...now, workshop: { ...now.workshop, over: $event } }))"
              @unused="
                change((now) => ({
                  ...now,
                  workshop: { ...now.workshop, unused: $event(now.workshop.unused) },
                }))
              "
            />
            <ShopBooks v-else :workshop="pk" :system="system" />
          </template>
        </ElTabPane>
      </ElTabs>
    </template>
  </main>
</template>

<style scoped>
.shop {
  max-width: 78rem;
  margin: 0 auto;
  padding: 1.2rem 1.4rem 4rem;
}
.units {
  min-width: 12rem;
}
.named {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 0.8rem 1.6rem;
  margin: 0.6rem 0 1rem;
}
.named .field {
  flex: 0 1 20rem;
}
.named p {
  margin: 0 0 0.6rem;
}
</style>

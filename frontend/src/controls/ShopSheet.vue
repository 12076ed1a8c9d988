<script setup lang="ts">
/** How this shop cuts: kerfs, allowances, the order of milling, and how the project shows lengths. */
import { I18nT } from "vue-i18n";
import { ElCheckbox } from "element-plus";
import { computed, ref } from "vue";
import type { Shop } from "../api/client";
import { useProject } from "../api/project";
import { useProjectWorkshop } from "../api/workshop";
import { isMetric, show, SYSTEMS, TICKS_PER_INCH, TICKS_PER_MM } from "../measure";
import AllowanceAdvice from "./AllowanceAdvice.vue";
import MeasureField from "./MeasureField.vue";
import AppDialog from "./AppDialog.vue";
import ChoiceField from "./fields/ChoiceField.vue";
import { t } from "../i18n/i18n";

const emit = defineEmits<{ close: [] }>();
const { pk, project, edit } = useProject();
const { workshop } = useProjectWorkshop(pk);
const open = ref(true);
const shop = computed(() => project.value!.shop);
const system = computed(() => project.value!.system);

function set(values: Partial<Shop>): void {
  void edit({ label: t("shop settings"), shop: { ...shop.value, ...values } });
}
const KERFS = [
  ["crosscut", t("Crosscut kerf")],
  ["rip", t("Rip kerf")],
  ["resaw", t("Resaw kerf")],
] as const;
const ALLOWANCES = [
  ["length", t("Over in length, each blank")],
  ["between", t("Over between parts of one blank")],
  ["width", t("Over in width")],
  ["face", t("Over in thickness")],
  ["panel_width", t("Panels glued over by")],
  ["layer", t("Over in each resawn layer, for cupping")],
] as const;
/** What chalk marks may be rounded to, coarsest first. */
const CHALK = computed(() => {
  const steps = isMetric(system.value)
    ? [5 * TICKS_PER_MM, 2 * TICKS_PER_MM, TICKS_PER_MM]
    : [TICKS_PER_INCH / 8, TICKS_PER_INCH / 16, TICKS_PER_INCH / 32];
  return steps.map((ticks) => ({ ticks, word: show(ticks, system.value, true) }));
});
const chalk = computed(
  () => shop.value.chalk || (isMetric(system.value) ? TICKS_PER_MM : TICKS_PER_INCH / 16),
);
const METHODS = [
  ["mill-wide", t("Plane, then rip: a segment is milled in one go")],
  ["rough-rip", t("Rough-rip first: each blank is flattened by itself")],
] as const;
const TICKETS = [
  ["exact", "exactly"],
  ["surface", t("by surface measure: the face to a whole foot, then × thickness")],
] as const;
</script>

<template>
  <AppDialog v-model="open" :title="$t('The shop')" width="44rem" @closed="emit('close')">
    <div v-if="project" class="sheet">
      <ChoiceField
        class="wide"
        :label="$t('Lengths are shown in')"
        :options="SYSTEMS"
        :model-value="system"
        @update:model-value="edit({ label: 'units', system: $event })"
      />
      <ChoiceField
        class="wide"
        :label="$t('Order of milling')"
        :options="METHODS"
        :model-value="shop.method"
        @update:model-value="set({ method: $event })"
      />
      <MeasureField
        v-for="[key, word] in KERFS"
        :key="key"
        :label="word"
        :system="system"
        :model-value="shop.kerf[key]"
        @update:model-value="set({ kerf: { ...shop.kerf, [key]: $event } })"
      />
      <MeasureField
        v-for="[key, word] in ALLOWANCES"
        :key="key"
        :label="word"
        :system="system"
        :model-value="shop.allowance[key]"
        @update:model-value="set({ allowance: { ...shop.allowance, [key]: $event } })"
      />
      <ChoiceField
        :label="$t('Chalk marks are rounded to')"
        :options="CHALK.map((c) => [c.ticks, c.word] as const)"
        :model-value="chalk"
        @update:model-value="set({ chalk: $event })"
      />
      <MeasureField
        :label="$t('Trimmed off each end')"
        :system="system"
        :model-value="shop.end_trim"
        @update:model-value="set({ end_trim: $event })"
      />
      <MeasureField
        :label="$t('Shortest blank for the machines')"
        :system="system"
        :model-value="shop.min_blank_length"
        @update:model-value="set({ min_blank_length: $event })"
      />
    </div>
    <AllowanceAdvice
      v-if="project && workshop"
      :workshop="workshop.pk"
      :allowance="shop.allowance"
      :system="system"
      @take="set({ allowance: { ...shop.allowance, ...$event } })"
    />
    <div v-if="project" class="sheet">
      <ChoiceField
        class="wide"
        :label="$t(`The yard's ticket counts board feet`)"
        :options="TICKETS"
        :model-value="shop.ticket.method"
        @update:model-value="set({ ticket: { ...shop.ticket, method: $event! } })"
      />
      <ElCheckbox
        :model-value="shop.ticket.whole_feet"
        @change="set({ ticket: { ...shop.ticket, whole_feet: !!$event } })"
        >{{ $t("lengths down to whole feet") }}</ElCheckbox
      >
      <ElCheckbox
        :model-value="shop.ticket.half_inches_up"
        @change="set({ ticket: { ...shop.ticket, half_inches_up: !!$event } })"
        >{{ $t("widths up to the half inch") }}</ElCheckbox
      >
      <MeasureField
        :label="$t('An offcut is kept from a length of')"
        :system="system"
        :model-value="shop.keep.length"
        @update:model-value="set({ keep: { ...shop.keep, length: $event } })"
      />
      <MeasureField
        :label="$t('and a width of')"
        :system="system"
        :model-value="shop.keep.width"
        @update:model-value="set({ keep: { ...shop.keep, width: $event } })"
      />
    </div>
    <p class="soft">
      {{ $t("The machines' own manuals decide what is safe; these are usual starting values.") }}
      <I18nT
        keypath="The air and the instruments at the bench are {workshop}, for all that is made in it."
        scope="global"
        ><template #workshop
          ><RouterLink
            :to="{ name: 'workshop', params: { workshop: workshop?.pk ?? '' }, query: { view: 'room' } }"
            >{{ $t("the workshop's") }}</RouterLink
          ></template
        ></I18nT
      >
    </p>
  </AppDialog>
</template>

<style scoped>
.sheet {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(12rem, 1fr));
  gap: 1rem 1.2rem;
  margin-bottom: 1.4rem;
}
.sheet > .wide {
  grid-column: 1 / -1;
}
</style>

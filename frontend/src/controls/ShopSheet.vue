<script setup lang="ts">
/** How this shop cuts: kerfs, allowances, the order of milling, and how the project shows lengths. */
import { useQuery } from "@tanstack/vue-query";
import { ElOption, ElSelect } from "element-plus";
import { computed, ref } from "vue";
import { api, type Shop } from "../api/client";
import { useProject } from "../api/project";
import { isMetric, show, type System, TICKS_PER_INCH, TICKS_PER_MM } from "../measure";
import MeasureField from "./MeasureField.vue";
import AppDialog from "./AppDialog.vue";

const emit = defineEmits<{ close: [] }>();
const { project, edit } = useProject();
const open = ref(true);
const shop = computed(() => project.value!.shop);
const system = computed(() => project.value!.system);

function set(values: Partial<Shop>): void {
  void edit({ label: "shop settings", shop: { ...shop.value, ...values } });
}
const KERFS = [
  ["crosscut", "Crosscut kerf"],
  ["rip", "Rip kerf"],
  ["resaw", "Resaw kerf"],
] as const;
const { data: offers } = useQuery({
  queryKey: ["instruments"],
  queryFn: async () => (await api.GET("/api/instruments")).data!,
  staleTime: Infinity,
});
const KINDS = [
  ["caliper", "Caliper"],
  ["readout", "Planer readout"],
  ["moisture", "Moisture meter"],
  ["metal", "Metal detector"],
  ["scanner", "Board scanner"],
] as const;
const ALLOWANCES = [
  ["length", "Over in length, each blank"],
  ["between", "Over between parts of one blank"],
  ["width", "Over in width"],
  ["face", "Over in thickness"],
  ["panel_width", "Panels glued over by"],
  ["layer", "Over in each resawn layer, for cupping"],
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
</script>

<template>
  <AppDialog v-model="open" title="The shop" width="44rem" @closed="emit('close')">
    <div v-if="project" class="sheet">
      <label class="field"
        ><span>Lengths are shown in</span>
        <select
          class="line-input"
          :value="system"
          @change="edit({ label: 'units', system: ($event.target as HTMLSelectElement).value as System })"
        >
          <option value="in">inches, fractions</option>
          <option value="in-decimal">inches, decimal</option>
          <option value="ft-in">feet and inches</option>
          <option value="mm">millimetres</option>
          <option value="cm">centimetres</option>
          <option value="m">metres</option>
        </select>
      </label>
      <label class="field"
        ><span>Order of milling</span>
        <select
          class="line-input"
          :value="shop.method"
          @change="set({ method: ($event.target as HTMLSelectElement).value as Shop['method'] })"
        >
          <option value="mill-wide">Plane, then rip: a segment is milled in one go</option>
          <option value="rough-rip">Rough-rip first: each blank is flattened by itself</option>
        </select>
      </label>
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
      <label class="field"
        ><span>Chalk marks are rounded to</span>
        <ElSelect
          :model-value="chalk"
          aria-label="Chalk marks are rounded to"
          @change="set({ chalk: $event })"
        >
          <ElOption v-for="c in CHALK" :key="c.ticks" :value="c.ticks" :label="c.word" />
        </ElSelect>
      </label>
      <MeasureField
        label="Trimmed off each end"
        :system="system"
        :model-value="shop.end_trim"
        @update:model-value="set({ end_trim: $event })"
      />
      <MeasureField
        label="Shortest blank for the machines"
        :system="system"
        :model-value="shop.min_blank_length"
        @update:model-value="set({ min_blank_length: $event })"
      />
    </div>
    <div v-if="project" class="sheet">
      <label class="field half"
        ><span>The shop's air, °C</span
        ><input
          class="line-input"
          type="number"
          step="0.5"
          :value="shop.climate.celsius"
          @change="
            set({ climate: { ...shop.climate, celsius: Number(($event.target as HTMLInputElement).value) } })
          "
      /></label>
      <label class="field half"
        ><span>Its humidity, %</span
        ><input
          class="line-input"
          type="number"
          min="0"
          max="99"
          :value="Math.round(shop.climate.humidity * 100)"
          @change="
            set({
              climate: { ...shop.climate, humidity: Number(($event.target as HTMLInputElement).value) / 100 },
            })
          "
      /></label>
    </div>
    <div v-if="project" class="sheet">
      <label class="field"
        ><span>The yard's ticket counts board feet</span>
        <select
          class="line-input"
          :value="shop.ticket.method"
          @change="
            set({
              ticket: {
                ...shop.ticket,
                method: ($event.target as HTMLSelectElement).value as Shop['ticket']['method'],
              },
            })
          "
        >
          <option value="exact">exactly</option>
          <option value="surface">by surface measure: the face to a whole foot, then × thickness</option>
        </select>
      </label>
      <label class="tick half"
        ><input
          type="checkbox"
          :checked="shop.ticket.whole_feet"
          @change="
            set({ ticket: { ...shop.ticket, whole_feet: ($event.target as HTMLInputElement).checked } })
          "
        />
        lengths down to whole feet</label
      >
      <label class="tick half"
        ><input
          type="checkbox"
          :checked="shop.ticket.half_inches_up"
          @change="
            set({ ticket: { ...shop.ticket, half_inches_up: ($event.target as HTMLInputElement).checked } })
          "
        />
        widths up to the half inch</label
      >
      <MeasureField
        label="An offcut is kept from a length of"
        :system="system"
        :model-value="shop.keep.length"
        @update:model-value="set({ keep: { ...shop.keep, length: $event } })"
      />
      <MeasureField
        label="and a width of"
        :system="system"
        :model-value="shop.keep.width"
        @update:model-value="set({ keep: { ...shop.keep, width: $event } })"
      />
    </div>
    <div v-if="project && offers" class="sheet">
      <label v-for="[kind, word] in KINDS" :key="kind" class="field half"
        ><span>{{ word }}</span>
        <select
          class="line-input"
          :value="shop.instruments[kind]"
          :title="offers[kind].map((o) => o.says).join('; ')"
          @change="
            set({ instruments: { ...shop.instruments, [kind]: ($event.target as HTMLSelectElement).value } })
          "
        >
          <option value="">none, figures are typed</option>
          <option v-for="o in offers[kind]" :key="o.name" :value="o.name">{{ o.says }}</option>
        </select>
      </label>
    </div>
    <p class="soft">The machines' own manuals decide what is safe; these are usual starting values.</p>
  </AppDialog>
</template>

<style scoped>
.sheet {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(12rem, 1fr));
  gap: 1rem 1.2rem;
  margin-bottom: 1.4rem;
}
.tick {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
  min-height: 44px;
}
.sheet > label:not(.half) {
  grid-column: 1 / -1;
}
</style>

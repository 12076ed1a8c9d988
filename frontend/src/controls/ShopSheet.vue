<script setup lang="ts">
/** How this shop cuts: kerfs, allowances, the order of milling, and how the project shows lengths. */
import { ElDialog } from "element-plus";
import { computed, ref } from "vue";
import type { Shop } from "../api/client";
import { useProject } from "../api/project";
import type { System } from "../measure";
import MeasureField from "./MeasureField.vue";

const emit = defineEmits<{ close: [] }>();
const { project, edit } = useProject();
const open = ref(true);
const shop = computed(() => project.value!.shop);
const system = computed(() => project.value!.system);

function set(values: Partial<Shop>): void {
  void edit({ label: "shop settings", shop: { ...shop.value, ...values } });
}
const KERFS = [["crosscut", "Crosscut kerf"], ["rip", "Rip kerf"], ["resaw", "Resaw kerf"]] as const;
const ALLOWANCES = [
  ["length", "Over in length"],
  ["width", "Over in width"],
  ["face", "Over in thickness"],
  ["panel_width", "Panels glued over by"],
] as const;
</script>

<template>
  <ElDialog v-model="open" title="The shop" width="44rem" @closed="emit('close')">
    <div v-if="project" class="sheet">
      <label class="field"><span>Lengths are shown in</span>
        <select class="line-input" :value="system" @change="edit({ label: 'units', system: ($event.target as HTMLSelectElement).value as System })">
          <option value="in">inches, fractions</option><option value="in-decimal">inches, decimal</option><option value="ft-in">feet and inches</option>
          <option value="mm">millimetres</option><option value="cm">centimetres</option><option value="m">metres</option>
        </select>
      </label>
      <label class="field"><span>Order of milling</span>
        <select class="line-input" :value="shop.method" @change="set({ method: ($event.target as HTMLSelectElement).value as Shop['method'] })">
          <option value="mill-wide">Plane, then rip: a segment is milled in one go</option>
          <option value="rough-rip">Rough-rip first: each blank is flattened by itself</option>
        </select>
      </label>
      <MeasureField v-for="[key, word] in KERFS" :key="key" :label="word" :system="system" :model-value="shop.kerf[key]" @update:model-value="set({ kerf: { ...shop.kerf, [key]: $event } })" />
      <MeasureField v-for="[key, word] in ALLOWANCES" :key="key" :label="word" :system="system" :model-value="shop.allowance[key]" @update:model-value="set({ allowance: { ...shop.allowance, [key]: $event } })" />
      <MeasureField label="Trimmed off each end" :system="system" :model-value="shop.end_trim" @update:model-value="set({ end_trim: $event })" />
      <MeasureField label="Shortest blank for the machines" :system="system" :model-value="shop.min_blank_length" @update:model-value="set({ min_blank_length: $event })" />
    </div>
    <div v-if="project" class="sheet">
      <label class="field half"><span>The shop's air, °C</span><input class="line-input" type="number" step="0.5" :value="shop.climate.celsius" @change="set({ climate: { ...shop.climate, celsius: Number(($event.target as HTMLInputElement).value) } })" /></label>
      <label class="field half"><span>Its humidity, %</span><input class="line-input" type="number" min="0" max="99" :value="Math.round(shop.climate.humidity * 100)" @change="set({ climate: { ...shop.climate, humidity: Number(($event.target as HTMLInputElement).value) / 100 } })" /></label>
    </div>
    <p class="soft">The machines' own manuals decide what is safe; these are usual starting values.</p>
  </ElDialog>
</template>

<style scoped>
.sheet {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(12rem, 1fr));
  gap: 1rem 1.2rem;
  margin-bottom: 1.4rem;
}
.sheet > label:not(.half) {
  grid-column: 1 / -1;
}
</style>

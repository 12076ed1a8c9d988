<script setup lang="ts">
/** The air of a workshop, to which its wood comes, and the instruments that are connected at its bench. */
import { useQuery } from "@tanstack/vue-query";
import { computed } from "vue";
import { api } from "../../api/client";
import type { Workshop } from "../../api/workshop";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import CountField from "../../controls/fields/CountField.vue";
import { t } from "../../i18n/i18n";

const props = defineProps<{ workshop: Workshop }>();
const emit = defineEmits<{ change: [(now: Workshop) => Workshop] }>();
const { data: offers } = useQuery({
  queryKey: ["instruments"],
  queryFn: async () => (await api.GET("/api/instruments")).data!,
  staleTime: Infinity,
});
const KINDS = [
  ["caliper", t("Caliper")],
  ["readout", t("Planer readout")],
  ["moisture", t("Moisture meter")],
  ["metal", t("Metal detector")],
  ["scanner", t("Board scanner")],
] as const;
type Air = Workshop["climate"];
const air = computed(() => props.workshop.climate);
const breathe = (values: Partial<Air>) =>
  emit("change", (now) => ({ ...now, climate: { ...now.climate, ...values } }));
function connect(kind: keyof Workshop["instruments"], name: string): void {
  emit("change", (now) => ({ ...now, instruments: { ...now.instruments, [kind]: name } }));
}
</script>

<template>
  <fieldset>
    <legend>{{ $t("The air over the year") }}</legend>
    <CountField
      :label="$t('Temperature, °C')"
      :step="0.5"
      :model-value="air.celsius"
      @update:model-value="breathe({ celsius: $event })"
    />
    <CountField
      :label="$t('Humidity, %')"
      :min="0"
      :max="99"
      :model-value="Math.round(air.humidity * 100)"
      @update:model-value="breathe({ humidity: $event / 100 })"
    />
    <p class="soft">{{ $t("How long a board rests, and how much it will move, is told for this air.") }}</p>
  </fieldset>
  <fieldset v-if="offers">
    <legend>{{ $t("Connected at the bench") }}</legend>
    <ChoiceField
      v-for="[kind, word] in KINDS"
      :key="kind"
      :label="word"
      :options="[['', $t('none, figures are typed')], ...offers[kind].map((o) => [o.name, o.says] as const)]"
      :model-value="workshop.instruments[kind]"
      @update:model-value="connect(kind, $event ?? '')"
    />
  </fieldset>
</template>

<style scoped>
fieldset {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(14rem, 1fr));
  align-items: end;
  gap: 1rem 1.2rem;
  margin: 0 0 1.6rem;
}
fieldset p {
  margin: 0 0 0.6rem;
}
</style>

<script setup lang="ts">
/** A sheet of labels for the pieces: how the paper is divided, and where to begin on it. */
import { computed, ref } from "vue";
import { useProject } from "../../api/project";
import { isMetric } from "../../measure";
import AppDialog from "../../controls/AppDialog.vue";
import CountField from "../../controls/fields/CountField.vue";
import { t } from "../../i18n/i18n";

const emit = defineEmits<{ close: [] }>();
const { pk, project } = useProject();
const open = ref(true);
const KEPT = `plank-labels-${isMetric(project.value!.system) ? "mm" : "in"}`;
const usual = isMetric(project.value!.system)
  ? { columns: 3, rows: 8, width: 63.5, height: 33.9, left: 7.2, top: 13, gap_x: 2.5, gap_y: 0 }
  : { columns: 3, rows: 10, width: 66.7, height: 25.4, left: 4.8, top: 12.7, gap_x: 3.1, gap_y: 0 };
const sheet = ref<Record<keyof typeof usual, number>>({
  ...usual,
  ...JSON.parse(localStorage.getItem(KEPT) ?? "{}"),
});
const skip = ref(0);
const FIELDS: [keyof typeof usual, string][] = [
  ["columns", t("Labels across")],
  ["rows", t("Labels down")],
  ["width", t("Width, mm")],
  ["height", t("Height, mm")],
  ["left", t("Left margin, mm")],
  ["top", t("Top margin, mm")],
  ["gap_x", t("Gap across, mm")],
  ["gap_y", t("Gap down, mm")],
];
const address = computed(
  () =>
    `/api/projects/${pk.value}/labels.pdf?${new URLSearchParams(
      Object.entries({ ...sheet.value, skip: skip.value }).map(([k, v]) => [k, String(v)]),
    )}`,
);
function keep(): void {
  localStorage.setItem(KEPT, JSON.stringify(sheet.value));
}
</script>

<template>
  <AppDialog v-model="open" :title="$t('Labels')" width="40rem" @closed="emit('close')">
    <p>{{ $t("One for every piece: mark, name, size, wood, and a code that opens the part here.") }}</p>
    <div class="fields">
      <label v-for="[name, word] in FIELDS" :key="name" class="field"
        ><span>{{ word }}</span
        ><input
          v-model.number="sheet[name]"
          class="line-input"
          type="number"
          step="any"
          min="0"
          @change="keep"
      /></label>
      <CountField v-model="skip" :label="$t('Labels used up on the first sheet')" :min="0" />
    </div>
    <a class="act lead" :href="address">{{ $t("Make the PDF") }}</a>
  </AppDialog>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(10rem, 1fr));
  gap: 0.8rem 1rem;
  margin: 1rem 0;
}
</style>

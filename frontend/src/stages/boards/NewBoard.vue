<script setup lang="ts">
/** The least one needs to know of a board; the rest is added on it. */
import { ElButton, ElMessage } from "element-plus";
import { computed, ref } from "vue";
import { useProject } from "../../api/project";
import { plainBoard, plainStation } from "../../board/make";
import MeasureField from "../../controls/MeasureField.vue";
import WarpSketch from "../../board/WarpSketch.vue";
import AppDialog from "../../controls/AppDialog.vue";
import WoodField from "../../controls/fields/WoodField.vue";
import { t } from "../../i18n/i18n";

const emit = defineEmits<{ close: []; added: [string] }>();
const { project, edit } = useProject();
const open = ref(true);
const system = computed(() => project.value!.system);
const last = project.value?.boards.at(-1);
const stem = (last?.id ?? "B").replace(/\d+$/, "") || "B";
const taken = new Set(project.value?.boards.map((b) => b.id));
let n = 1;
while (taken.has(stem + n)) n++;

const mark = ref(stem + n);
const species = ref(last?.species ?? project.value?.parts[0]?.species ?? "");
const length = ref<number | null>(null);
const near = ref<number | null>(null);
const far = ref<number | null>(null);
const thick = ref<number | null>(null);
const thin = ref<number | null>(null);
const bow = ref(0);
const cup = ref(0);
const twist = ref(0);
const price = ref("");

function add(): void {
  const missing = [
    !mark.value.trim() && "a mark",
    !species.value.trim() && "a wood",
    !length.value && "a length",
    !near.value && "a width",
    !thick.value && "a thickness",
  ].filter(Boolean);
  if (missing.length) {
    ElMessage({
      type: "error",
      message: t("The board still needs {missing}", { missing: missing.join(", ") }),
    });
    return;
  }
  if (taken.has(mark.value.trim())) {
    ElMessage({
      type: "error",
      message: t("The mark '{mark}' is taken; every mark once", { mark: mark.value }),
    });
    return;
  }
  const t0 = thick.value!;
  const t1 = thin.value ?? t0;
  const wide = far.value ?? near.value!;
  const board = plainBoard({
    id: mark.value.trim(),
    species: species.value.trim(),
    length: length.value!,
    price: Math.max(0, Number(price.value.replace(",", ".")) || 0),
    stations: [plainStation(0, 0, near.value!, t0), plainStation(length.value!, 0, wide, t1)],
    warp: { bow: bow.value, cup: cup.value, twist: twist.value },
  });
  void edit({ label: t("new board {id}", { id: board.id }), put_boards: [{ ...board, was: "" }] });
  emit("added", board.id);
  open.value = false;
}
</script>

<template>
  <AppDialog v-model="open" :title="$t('A board on hand')" width="46rem" @closed="emit('close')">
    <form class="form" @submit.prevent="add">
      <label class="field"
        ><span>{{ $t("Mark on its end") }}</span
        ><input v-model="mark" class="line-input"
      /></label>
      <WoodField v-model="species" :label="$t('Wood')" />
      <MeasureField v-model="length" :label="$t('Length')" :system="system" />
      <MeasureField v-model="near" :label="$t('Width at the datum end')" :system="system" />
      <MeasureField v-model="far" :label="$t('Width at the far end, if it tapers')" :system="system" />
      <MeasureField v-model="thick" :label="$t('Thickness at the datum end')" :system="system" />
      <MeasureField v-model="thin" :label="$t('Thickness at the far end, if it differs')" :system="system" />
      <label class="field"
        ><span>{{ $t("Price, nothing if owned") }}</span
        ><input v-model="price" class="line-input" inputmode="decimal" placeholder="0"
      /></label>
      <div class="warp">
        <WarpSketch kind="bow" /><MeasureField
          v-model="bow"
          :label="$t('Bow: gap under its middle, along')"
          :system="system"
          signed
        />
      </div>
      <div class="warp">
        <WarpSketch kind="cup" /><MeasureField
          v-model="cup"
          :label="$t('Cup: gap under its middle, across')"
          :system="system"
          signed
        />
      </div>
      <div class="warp">
        <WarpSketch kind="twist" /><MeasureField
          v-model="twist"
          :label="$t('Twist: gap under the fourth corner')"
          :system="system"
          signed
        />
      </div>
      <div class="buttons">
        <ElButton class="act lead" native-type="submit">{{ $t("Put it in the rack") }}</ElButton><ElButton
          class="act"
          @click="open = false"
          >{{ $t("Leave it") }}</ElButton
        >
      </div>
    </form>
  </AppDialog>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(13rem, 1fr));
  gap: 1rem 1.2rem;
  align-items: end;
}
.warp {
  display: flex;
  flex-direction: column;
  gap: 0.3rem;
}
.buttons {
  grid-column: 1 / -1;
  display: flex;
  gap: 0.6rem;
}
</style>

<script setup lang="ts">
/** The row at the end of the grid that a new part is typed into. */
import { ElButton, ElMessage } from "element-plus";
import { computed, nextTick, ref } from "vue";
import type { Part } from "../../api/client";
import { plainPart } from "../../api/parts";
import { useProject } from "../../api/project";
import MeasureField from "../../controls/MeasureField.vue";
import type { System } from "../../measure";
import { markFor } from "./marks";
import { FACES } from "./grid";
import { t } from "../../i18n/i18n";

defineProps<{ system: System }>();
const { project, edit } = useProject();
const draft = ref({
  name: "",
  quantity: "1",
  length: null as number | null,
  width: null as number | null,
  thickness: null as number | null,
  species: "",
  faces: "clear-one" as Part["faces"],
});
const draftName = ref<HTMLInputElement>();
const draftSpecies = computed(() => draft.value.species || project.value!.parts.at(-1)?.species || "");
async function addDraft(): Promise<void> {
  const d = draft.value;
  const missing = [
    !d.name.trim() && "a name",
    !d.length && "a length",
    !d.width && "a width",
    !d.thickness && "a thickness",
    !draftSpecies.value && "a wood",
  ].filter(Boolean);
  if (missing.length) {
    ElMessage({
      type: "error",
      message: t("The new part still needs {missing}", { missing: missing.join(", ") }),
    });
    return;
  }
  const id = markFor(d.name, new Set(project.value!.parts.map((p) => p.id)));
  const quantity = Math.max(1, Math.round(Number(d.quantity) || 1));
  void edit({
    label: t("new part {id}", { id }),
    put_parts: [
      plainPart({
        id,
        name: d.name.trim(),
        quantity,
        species: draftSpecies.value,
        length: d.length!,
        width: d.width!,
        thickness: d.thickness!,
        faces: d.faces,
      }),
    ],
  });
  draft.value = { ...d, name: "", quantity: "1", length: null, width: null };
  await nextTick();
  draftName.value?.focus();
}

defineExpose({ focus: () => draftName.value?.focus() });
</script>

<template>
  <tr class="draft" @keydown.enter.prevent="addDraft">
    <td />
    <td class="soft plus">{{ $t("new") }}</td>
    <td>
      <input
        ref="draftName"
        v-model="draft.name"
        class="cell"
        :aria-label="$t('New part')"
        :placeholder="$t('Part')"
      />
    </td>
    <td>
      <input
        v-model="draft.quantity"
        class="cell num count"
        inputmode="numeric"
        :aria-label="$t('New count')"
      />
    </td>
    <td>
      <MeasureField v-model="draft.length" compact hide-label :label="$t('New length')" :system="system" />
    </td>
    <td>
      <MeasureField v-model="draft.width" compact hide-label :label="$t('New width')" :system="system" />
    </td>
    <td>
      <MeasureField
        v-model="draft.thickness"
        compact
        hide-label
        :label="$t('New thickness')"
        :system="system"
      />
    </td>
    <td>
      <input
        v-model="draft.species"
        class="cell wood"
        list="woods"
        :aria-label="$t('New wood')"
        :placeholder="draftSpecies || $t('Wood')"
      />
    </td>
    <td>
      <select v-model="draft.faces" class="cell" :aria-label="$t('New faces')">
        <option v-for="(says, faces) in FACES" :key="faces" :value="faces">{{ says }}</option>
      </select>
    </td>
    <td colspan="5">
      <ElButton class="act" @click="addDraft">{{ $t("Add the part") }}</ElButton>
    </td>
  </tr>
</template>

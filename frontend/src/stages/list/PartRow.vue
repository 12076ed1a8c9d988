<script setup lang="ts">
/** A part in the grid, cell by cell. It is drawn anew when the part itself changes. */
import { ElButton } from "element-plus";
import type { Part, Shop } from "../../api/client";
import Len from "../../controls/Len.vue";
import MeasureField from "../../controls/MeasureField.vue";
import { show, type System } from "../../measure";
import { FACES } from "./grid";
import { t } from "../../i18n/i18n";

type WorkedOut = { ticks: number | null; why: string };
const props = defineProps<{
  p: Part;
  shop: Shop;
  system: System;
  chosen: boolean;
  workOut: (text: string) => Promise<WorkedOut>;
}>();
const emit = defineEmits<{
  choose: [MouseEvent];
  change: [string, Partial<Part>];
  count: [Event];
  formula: [string, string];
  panel: [boolean];
  open: [];
  remove: [];
}>();

function rough(p: Part): { length: number; width: number } {
  const a = props.shop.allowance;
  if (p.stock !== "board")
    return {
      length: p.length - (p.edging?.ends ?? 0) * (p.edging?.thickness ?? 0),
      width: p.width - (p.edging?.long_edges ?? 0) * (p.edging?.thickness ?? 0),
    };
  return { length: p.length + a.length, width: p.width + (p.panel ? a.panel_width : a.width) };
}

/** What made the rough size out of the finished one. */
function allowances(p: Part): string {
  if (p.stock !== "board") return p.edging ? t("without its edging") : t("cut to size");
  const a = props.shop.allowance;
  const over = (ticks: number) => show(ticks, props.system, true);
  const between =
    a.between === a.length
      ? ""
      : t(", {between} between parts of one blank", {
          between: a.between ? `${over(a.between)}` : t("the kerf alone"),
        });
  const width = over(p.panel ? a.panel_width : a.width);
  return t("{a} over in length{between}, {width} in width, {face} in thickness", {
    a: over(a.length),
    between,
    width,
    face: over(a.face * p.layers),
  });
}
</script>

<template>
  <tr :data-part="p.id" :class="{ chosen }">
    <td class="tick">
      <input
        type="checkbox"
        :checked="chosen"
        :aria-label="$t('Choose {id}', { id: p.id })"
        @click="emit('choose', $event)"
      />
    </td>
    <td data-column="id">
      <input
        class="cell mark"
        :value="p.id"
        :aria-label="$t('Mark')"
        @change="
          emit('change', 'mark', { id: ($event.target as HTMLInputElement).value.trim() });
          ($event.target as HTMLInputElement).value = p.id;
        "
      />
    </td>
    <td data-column="name">
      <input
        class="cell"
        :value="p.name"
        :aria-label="$t('Part')"
        @change="emit('change', 'name', { name: ($event.target as HTMLInputElement).value })"
      />
    </td>
    <td data-column="quantity">
      <input
        class="cell num count"
        inputmode="text"
        :value="p.quantity"
        :aria-label="$t('Count')"
        :title="p.formulas.quantity ? `= ${p.formulas.quantity}` : undefined"
        :class="{ formed: p.formulas.quantity }"
        @focus="
          p.formulas.quantity
            ? (($event.target as HTMLInputElement).value = `=${p.formulas.quantity}`)
            : undefined
        "
        @blur="($event.target as HTMLInputElement).value = String(p.quantity)"
        @change="emit('count', $event)"
      />
    </td>
    <td
      v-for="[field, label] in [
        ['length', 'Length'],
        ['width', 'Width'],
        ['thickness', 'Thickness'],
      ] as const"
      :key="field"
      :data-column="field"
    >
      <MeasureField
        compact
        hide-label
        :label="label"
        :system="system"
        :model-value="p[field]"
        :formula="p.formulas[field] ?? ''"
        :work-out="workOut"
        @formula="emit('formula', field, $event)"
        @update:model-value="emit('change', field, { [field]: $event })"
      />
    </td>
    <td data-column="species">
      <input
        class="cell wood"
        list="woods"
        :value="p.species"
        :aria-label="$t('Wood')"
        @change="
          emit('change', 'wood', {
            species: ($event.target as HTMLInputElement).value.trim() || p.species,
          })
        "
      />
    </td>
    <td data-column="faces">
      <select
        class="cell"
        :value="p.faces"
        :aria-label="$t('Faces')"
        @change="
          emit('change', 'faces', { faces: ($event.target as HTMLSelectElement).value as Part['faces'] })
        "
      >
        <option v-for="(says, faces) in FACES" :key="faces" :value="faces">{{ says }}</option>
      </select>
    </td>
    <td data-column="run">
      <input
        class="cell run"
        :value="p.run"
        :aria-label="$t('Run')"
        :disabled="!!p.panel || p.stock !== 'board'"
        @change="emit('change', 'run', { run: ($event.target as HTMLInputElement).value.trim() })"
      />
    </td>
    <td class="panel">
      <span v-if="p.stock !== 'board'" class="kind">{{ p.stock }}</span>
      <label v-else
        ><input
          type="checkbox"
          :checked="!!p.panel"
          :aria-label="$t('Panel')"
          @change="emit('panel', ($event.target as HTMLInputElement).checked)"
      /></label>
      <template v-if="p.panel && p.stock === 'board'">
        <MeasureField
          compact
          hide-label
          :label="$t('Narrowest stave')"
          :system="system"
          :model-value="p.panel.stave_min"
          @update:model-value="emit('change', 'staves', { panel: { ...p.panel!, stave_min: $event } })"
        />
        <span>{{ $t("to") }}</span>
        <MeasureField
          compact
          hide-label
          :label="$t('Widest stave')"
          :system="system"
          :model-value="p.panel.stave_max"
          @update:model-value="emit('change', 'staves', { panel: { ...p.panel!, stave_max: $event } })"
        />
      </template>
    </td>
    <td class="num rough" :title="allowances(p)">
      <Len :ticks="rough(p).length" :system="system" bare /> ×
      <Len :ticks="rough(p).width" :system="system" bare />
    </td>
    <td data-column="note">
      <input
        class="cell"
        :value="p.note"
        :aria-label="$t('Note')"
        @change="emit('change', 'note', { note: ($event.target as HTMLInputElement).value })"
      />
    </td>
    <td class="ends">
      <ElButton
        class="act quiet x"
        :aria-label="$t('All of {name}', { name: p.name })"
        :title="$t('All of this part')"
        @click="emit('open')"
      >
        ⋯</ElButton
      ><ElButton
        class="act quiet x"
        :aria-label="$t('Remove {name}', { name: p.name })"
        @click="emit('remove')"
        >×</ElButton
      >
    </td>
  </tr>
</template>

<script setup lang="ts">
/** What each column of a brought list holds: as its heading says, or as proposed; each may be changed. */
import { ElOption, ElSelect } from "element-plus";
import type { Schemas } from "../../api/client";
import { t } from "../../i18n/i18n";

type Column = Schemas["ColumnBody"];
type Meaning = Schemas["ListAnswersBody"]["columns"] extends Record<string, infer M> | undefined ? M : never;

defineProps<{ columns: Column[] }>();
const emit = defineEmits<{ change: [heading: string, meaning: Meaning] }>();

const MEANINGS: [Meaning, string][] = [
  ["name", t("Part")],
  ["quantity", t("Count")],
  ["length", t("Length")],
  ["width", t("Width")],
  ["thickness", t("Thickness")],
  ["size", t("Three sizes in one")],
  ["species", t("Wood")],
  ["id", t("Mark")],
  ["faces", t("Faces")],
  ["note", t("Into the note")],
];
const known = new Set<string>(MEANINGS.map(([meaning]) => meaning));
</script>

<template>
  <ul class="columns">
    <li v-for="c in columns" :key="c.heading" :class="{ unsure: !c.sure }">
      <b>{{ c.heading }}</b>
      <span class="soft example">{{ c.example || $t("nothing in it") }}</span>
      <ElSelect
        v-if="known.has(c.meaning)"
        :model-value="c.meaning"
        size="large"
        :aria-label="$t('What {heading} holds', { heading: c.heading })"
        @update:model-value="emit('change', c.heading, $event)"
      >
        <ElOption v-for="[meaning, label] in MEANINGS" :key="meaning" :value="meaning" :label="label" />
      </ElSelect>
      <span v-else class="own">{{ c.meaning.replaceAll("_", " ") }}</span>
    </li>
  </ul>
</template>

<style scoped>
.columns {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(9.5rem, 1fr));
  gap: 0.6rem;
}
li {
  display: flex;
  flex-direction: column;
  gap: 0.2rem;
  padding: 0.4rem 0.5rem;
  border-top: 3px solid var(--ink-faint);
}
li.unsure {
  border-color: var(--tape);
  background: var(--paper);
}
b,
.example {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.own {
  min-height: 40px;
  display: grid;
  align-content: center;
}
</style>

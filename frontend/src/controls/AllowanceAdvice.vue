<script setup lang="ts">
/** What pieces here have needed of their allowances, where that is not what is set: one tap takes it. */
import { I18nT } from "vue-i18n";
import { ElButton } from "element-plus";
import { computed } from "vue";
import type { Shop } from "../api/client";
import { useLearned } from "../api/learned";
import { upOnRule, type System } from "../measure";
import { restsOn } from "./learnedFigures";
import Len from "./Len.vue";
import { t } from "../i18n/i18n";

const props = defineProps<{ workshop: number; allowance: Shop["allowance"]; system: System }>();
const emit = defineEmits<{ take: [Partial<Shop["allowance"]>] }>();
const { data } = useLearned(computed(() => props.workshop));
const SIZES = { length: t("in length"), width: t("in width"), face: t("in thickness") } as const;
type Size = keyof typeof SIZES;
const advice = computed(() =>
  (data.value?.figures ?? [])
    .filter((f) => f.kind === "allowance" && f.used)
    .map((f) => ({ figure: f, of: f.of as Size, enough: upOnRule(f.value, props.system) }))
    .filter((a) => a.enough !== props.allowance[a.of]),
);
</script>

<template>
  <ul v-if="advice.length" class="advice" :aria-label="$t('What pieces here have needed')">
    <li v-for="a in advice" :key="a.of">
      <span
        ><I18nT keypath="{allowance} over {size} would be enough for nine pieces of ten here" scope="global"
          ><template #allowance
            ><b><Len :ticks="a.enough" :system="system" /></b></template
          ><template #size>{{ SIZES[a.of] }}</template></I18nT
        >{{ " "
        }}<span class="soft">{{
          $t("({figure}, as far as they were read or counted)", { figure: restsOn(a.figure) })
        }}</span></span
      >
      <ElButton
        class="act"
        :aria-label="$t('Take it {size}', { size: SIZES[a.of] })"
        @click="emit('take', { [a.of]: a.enough })"
        >{{ $t("Take it") }}</ElButton
      >
    </li>
  </ul>
</template>

<style scoped>
.advice {
  margin: 0 0 1.4rem;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 1rem;
  padding: 0.3rem 0;
}
.act {
  white-space: nowrap;
}
</style>

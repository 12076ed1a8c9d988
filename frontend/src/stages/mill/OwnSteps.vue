<script setup lang="ts">
/** The maker's own steps in a part's route: a groove, a rebate, a round-over. */
import { ElButton, ElInput, ElInputNumber, ElOption, ElSegmented, ElSelect } from "element-plus";
import { computed, reactive } from "vue";
import type { Settings } from "../../api/milling";
import { t } from "../../i18n/i18n";

type Own = Settings["own"][number];
const props = defineProps<{ own: Own[]; parts: { id: string; name: string }[] }>();
const emit = defineEmits<{ change: [Own[]] }>();
const MACHINES = ["bench", "table saw", "bandsaw", "hand plane", "handsaw", "crosscut saw", "router table"];
const WHEN = [
  { label: t("before its ends are cut"), value: true },
  { label: t("when it is cut"), value: false },
];
const fresh = (): Own => ({ part: "", name: "", machine: "bench", setting: "", before: false, minutes: 5 });
const draft = reactive(fresh());
const ready = computed(() => !!draft.part && !!draft.name.trim());
const called = (id: string): string => props.parts.find((p) => p.id === id)?.name || id;
function add(): void {
  emit("change", [...props.own, { ...draft, name: draft.name.trim(), setting: draft.setting.trim() }]);
  Object.assign(draft, fresh(), { part: draft.part });
}
</script>

<template>
  <fieldset class="own">
    <legend>{{ $t("Your own steps") }}</legend>
    <p class="soft">
      {{
        $t(
          "Joinery is not worked out here, and not forgotten: what you add is carded, scheduled and ticked like any other step.",
        )
      }}
    </p>
    <ol v-if="own.length">
      <li v-for="(s, k) in own" :key="k">
        <span
          ><b>{{ s.name }}</b
          >: {{ called(s.part) }}, {{ s.machine }}<template v-if="s.setting">, {{ s.setting }}</template
          >, {{ s.before ? $t("before its ends are cut") : $t("when it is cut") }},
          {{ $t("{n} minute | {n} minutes", s.minutes) }}</span
        >
        <ElButton
          text
          :aria-label="$t('Remove {name} of {part}', { name: s.name, part: called(s.part) })"
          @click="
            emit(
              'change',
              own.filter((_, at) => at !== k),
            )
          "
          >{{ $t("Remove") }}</ElButton
        >
      </li>
    </ol>
    <div class="draft">
      <ElSelect v-model="draft.part" filterable :placeholder="$t('Part')" :aria-label="$t('Part')">
        <ElOption v-for="p in parts" :key="p.id" :value="p.id" :label="`${p.name || p.id} (${p.id})`" />
      </ElSelect>
      <ElInput
        v-model="draft.name"
        maxlength="200"
        :placeholder="$t('What is done')"
        :aria-label="$t('What is done')"
      />
      <ElSelect v-model="draft.machine" filterable allow-create :aria-label="$t('Machine')">
        <ElOption v-for="m in MACHINES" :key="m" :value="m" />
      </ElSelect>
      <ElInput
        v-model="draft.setting"
        maxlength="200"
        :placeholder="$t('Setting')"
        :aria-label="$t('Setting')"
      />
      <ElSegmented v-model="draft.before" class="when" :options="WHEN" :aria-label="$t('When')" />
      <ElInputNumber v-model="draft.minutes" :min="0" :max="10000" :aria-label="$t('Minutes')"
        ><template #suffix>{{ $t("min") }}</template></ElInputNumber
      >
      <ElButton :disabled="!ready" @click="add">{{ $t("Add the step") }}</ElButton>
    </div>
  </fieldset>
</template>

<style scoped>
.own {
  display: block;
  margin: 0;
  padding: 0.8rem 0 0;
  border: 0;
  border-top: 2px solid var(--ink);
}
legend {
  padding-right: 0.8rem;
  font-weight: 720;
  font-size: 1.1rem;
}
ol {
  display: grid;
  gap: 0.3rem;
  margin: 0.5rem 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  gap: 1rem;
  align-items: center;
  justify-content: space-between;
}
.when {
  grid-column: span 2;
  justify-self: start;
}
.draft {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(13rem, 1fr));
  gap: 0.6rem 1rem;
  align-items: center;
  margin-top: 0.6rem;
}
</style>

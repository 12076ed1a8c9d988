<script setup lang="ts">
/** The log: what happened, the newest first. Nothing is rubbed out; what was wrong is taken back. */
import { ElButton, ElEmpty, ElMessage, ElPopconfirm, ElTable, ElTableColumn, ElTag } from "element-plus";
import "element-plus/es/components/empty/style/css";
import "element-plus/es/components/popconfirm/style/css";
import "element-plus/es/components/table/style/css";
import "element-plus/es/components/table-column/style/css";
import "element-plus/es/components/tag/style/css";
import { computed, ref } from "vue";
import { useHappenings, useLog } from "../../api/log";
import Fig from "../../controls/Fig.vue";
import FileButton from "../../controls/fields/FileButton.vue";
import { withErrorToast } from "../../controls/withErrorToast";
import { t, tag } from "../../i18n/i18n";

const props = defineProps<{ project: number }>();
const emit = defineEmits<{ happened: [] }>();
const pk = computed(() => props.project);
const { data: log } = useLog(pk);
const { takeBack, bringLog } = useHappenings(pk);
const asked = ref("");
const shown = computed(() => {
  const words = asked.value.trim().toLowerCase();
  return (log.value?.events ?? []).filter(
    (e) => !words || `${e.says} ${e.who} ${e.note}`.toLowerCase().includes(words),
  );
});
const when = new Intl.DateTimeFormat(tag(), { dateStyle: "medium", timeStyle: "short" });
const at = (text: string) => when.format(new Date(text));
const takeIn = (file: File) =>
  withErrorToast(async () => {
    const many = await bringLog.mutateAsync(file);
    ElMessage({
      type: "success",
      message: t("{n} event written in the log | {n} events written in the log", many),
    });
  });
const back = (n: number) => withErrorToast(() => takeBack.mutateAsync(n));
</script>

<template>
  <div>
    <div class="find">
      <label class="field"
        ><span>{{ $t("Find what happened by piece, step or note") }}</span
        ><input v-model="asked" class="line-input" type="search" :placeholder="$t('O3, nail, split')"
      /></label>
      <ElButton class="act lead" @click="emit('happened')">{{ $t("Something happened") }}</ElButton>
      <a class="act" :href="`/api/projects/${project}/log.json`" download>{{
        $t("Take the log with you")
      }}</a>
      <FileButton accept=".json,application/json" @file="takeIn">{{ $t("Bring a log in") }}</FileButton>
    </div>
    <ElEmpty
      v-if="log && !log.events.length"
      :image-size="60"
      :description="
        $t('Nothing has happened yet. Steps done, readings, faults and mishaps are written here.')
      "
    />
    <ElTable v-else :data="shown" :row-class-name="({ row }) => (row.stands ? '' : 'gone')" size="large">
      <ElTableColumn prop="n" :label="$t('No.')" width="70" />
      <ElTableColumn :label="$t('When')" width="190">
        <template #default="{ row }">{{ at(row.at) }}</template>
      </ElTableColumn>
      <ElTableColumn :label="$t('What')" min-width="260">
        <template #default="{ row }">
          <Fig :text="row.says" />
          <ElTag v-if="!row.stands" type="info">{{ $t("taken back") }}</ElTag>
          <span v-if="row.who" class="soft"> · {{ row.who }}</span>
          <span v-if="row.note" class="soft"> · {{ row.note }}</span>
        </template>
      </ElTableColumn>
      <ElTableColumn label="" width="140" align="right">
        <template #default="{ row }">
          <ElPopconfirm
            v-if="row.stands"
            :title="$t('Take this back? The log keeps both.')"
            :confirm-button-text="$t('Take it back')"
            :cancel-button-text="$t('Leave it')"
            width="240"
            @confirm="back(row.n)"
          >
            <template #reference>
              <ElButton class="act" :aria-label="$t('Take back {n}: {says}', { n: row.n, says: row.says })">{{
                $t("Take back")
              }}</ElButton>
            </template>
          </ElPopconfirm>
        </template>
      </ElTableColumn>
    </ElTable>
  </div>
</template>

<style scoped>
.find {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem 1.2rem;
  align-items: end;
  margin-bottom: 1rem;
}
.find .field {
  flex: 1 1 18rem;
}
:deep(.gone) {
  color: var(--ink-soft);
  text-decoration: line-through;
}
</style>

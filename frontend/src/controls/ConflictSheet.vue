<script setup lang="ts">
/** Two have changed the same thing: both are shown, and the person at this screen chooses. */
import { ElButton, ElDialog } from "element-plus";
import { conflict } from "../api/project";
import DifferingTable from "./DifferingTable.vue";
</script>

<template>
  <ElDialog
    :model-value="!!conflict"
    :title="$t('Somebody else has changed the same')"
    width="40rem"
    :close-on-click-modal="false"
    :close-on-press-escape="false"
    :show-close="false"
  >
    <template v-if="conflict">
      <p>
        {{
          $t(
            "Your edit “{label}” is not lost. Since you made it the same was changed in another tab, or by somebody else.",
            { label: conflict.label },
          )
        }}
      </p>
      <DifferingTable
        v-for="clash in conflict.clashes"
        :key="clash.what + clash.id"
        :clash="clash"
        :system="conflict.system"
      />
    </template>
    <template #footer>
      <ElButton size="large" @click="conflict?.choose(false)">{{ $t("Leave it as it stands now") }}</ElButton>
      <ElButton size="large" type="primary" @click="conflict?.choose(true)">{{
        $t("Put mine in its place")
      }}</ElButton>
    </template>
  </ElDialog>
</template>

<script setup lang="ts">
/** What the usual machine cannot take, what is done instead, and what else could be; any can be taken. */
import { ElButton, ElCollapse, ElCollapseItem } from "element-plus";
import "element-plus/es/components/collapse/style/css";
import "element-plus/es/components/collapse-item/style/css";
import { computed } from "vue";
import type { Step } from "../../api/client";
import type { Method } from "../../api/milling";
import Fig from "../../controls/Fig.vue";

const props = defineProps<{ step: Step }>();
const emit = defineEmits<{ choose: [Method] }>();
const here = computed(() => props.step.ways[0]);
const others = computed(() => props.step.ways.slice(1));
const round = computed(() => !!props.step.obstacle || props.step.way !== "machine");
</script>

<template>
  <div v-if="here" :class="{ note: round }" class="ways">
    <div>
      <p v-if="round">
        <template v-if="step.obstacle"
          ><b><Fig :text="step.obstacle" />.</b>{{ " " }}</template
        >{{ $t("Here:") }} <Fig :text="here.do" /> ({{ here.costs }}).<template v-if="here.danger">{{
          " " + $t("Mind: {danger}.", { danger: here.danger })
        }}</template>
      </p>
      <ElCollapse v-if="others.length"
        ><ElCollapseItem
          ><template #title>{{ round ? $t("Or") : $t("Another way") }}</template>
          <ul>
            <li v-for="w in others" :key="w.method">
              <span>
                <Fig :text="w.do" /> ({{ w.costs }})<span v-if="w.danger" class="soft">; {{ w.danger }}</span>
              </span>
              <ElButton v-if="!step.done" class="act" @click="emit('choose', w.method)">{{
                $t("Do it so")
              }}</ElButton>
            </li>
          </ul>
        </ElCollapseItem></ElCollapse
      >
    </div>
  </div>
</template>

<style scoped>
.ways :deep(.el-collapse-item__wrap),
.ways :deep(.el-collapse-item__header) {
  border: 0;
}
.ways :deep(.el-collapse-item__header) {
  justify-content: flex-start;
}
.ways :deep(.el-collapse-item__arrow) {
  margin: 0 0.6rem;
}
.ways ul {
  display: grid;
  gap: 0.4rem;
  margin: 0.3rem 0 0;
  padding: 0;
  list-style: none;
}
.ways li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1rem;
  align-items: center;
  justify-content: space-between;
}
</style>

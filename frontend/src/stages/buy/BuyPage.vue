<script setup lang="ts">
/** From the list to the right boards: what to ask for, where, how much, and the boards looked at. */
import { ElAlert, ElEmpty, ElTabPane, ElTabs } from "element-plus";
import "element-plus/es/components/alert/style/css";
import "element-plus/es/components/empty/style/css";
import "element-plus/es/components/tab-pane/style/css";
import "element-plus/es/components/tabs/style/css";
import { computed, ref } from "vue";
import { useRoute, useRouter } from "vue-router";
import { useNeeds } from "../../api/buying";
import { useProject } from "../../api/project";
import AskView from "./AskView.vue";
import LengthsView from "./finished/LengthsView.vue";
import MaterialsView from "./MaterialsView.vue";
import OffersView from "./aisle/OffersView.vue";
import SuppliersView from "./SuppliersView.vue";
import WaysView from "./amounts/WaysView.vue";

const { pk, project } = useProject();
const route = useRoute();
const router = useRouter();
const stock = ref<number | null>(null);
const { data: needs, error } = useNeeds(pk, stock);
const tab = computed({
  get: () => String(route.query.view ?? (needs.value && !needs.value.asks.length ? "lengths" : "ask")),
  set: (view) => void router.replace({ query: { view } }),
});
const others = computed(() => (needs.value?.sheets.length ?? 0) + (needs.value?.lengths.length ?? 0));
</script>

<template>
  <section v-if="project" class="stage">
    <div class="stage-head">
      <h1>{{ $t("Buy") }}</h1>
      <div class="grow" />
      <RouterLink class="act" :to="{ name: 'boards', params: { project: pk } }">{{
        $t("Next: boards")
      }}</RouterLink>
      <RouterLink class="act lead" :to="{ name: 'aisle', params: { project: pk } }">{{
        $t("Look at boards in the aisle")
      }}</RouterLink>
    </div>
    <ElAlert v-if="error" type="error" :title="error.message" :closable="false" show-icon />
    <ElEmpty
      v-if="!project.parts.length"
      :image-size="70"
      :description="$t('The list says what to buy: which boards to ask for, how much of them, and where.')"
    >
      <RouterLink class="act lead" :to="{ name: 'list', params: { project: pk } }">{{
        $t("Write the list")
      }}</RouterLink>
    </ElEmpty>
    <ElTabs v-else v-model="tab">
      <ElTabPane :label="$t('What to ask for')" name="ask">
        <AskView :asks="needs?.asks ?? []" :by-books="needs?.by_books ?? {}" />
      </ElTabPane>
      <ElTabPane :label="$t('Where, and how much')" name="ways" lazy><WaysView /></ElTabPane>
      <ElTabPane :label="$t('Boards looked at')" name="offers" lazy><OffersView /></ElTabPane>
      <ElTabPane v-if="others" :label="$t('Sheets and lengths')" name="lengths" lazy>
        <LengthsView :sheets="needs?.sheets ?? []" :lengths="needs?.lengths ?? []" @stock="stock = $event" />
      </ElTabPane>
      <ElTabPane :label="$t('Besides boards')" name="besides" lazy>
        <MaterialsView :sheets="needs?.sheets ?? []" :lengths="needs?.lengths ?? []" />
      </ElTabPane>
      <ElTabPane :label="$t('Price books')" name="suppliers" lazy><SuppliersView /></ElTabPane>
    </ElTabs>
  </section>
</template>

<script setup lang="ts">
/** A list of which nothing is cut from boards: what there is instead, and where it is dealt with. */
import { I18nT } from "vue-i18n";
import { computed } from "vue";
import { useProject } from "../api/project";

const { pk, project } = useProject();
const named = (stock: "bought" | "sheet") =>
  (project.value?.parts ?? [])
    .filter((p) => p.stock === stock)
    .map((p) => `${p.quantity} × ${p.name || p.id}`)
    .join(", ");
const bought = computed(() => named("bought"));
const sheet = computed(() => named("sheet"));
</script>

<template>
  <div class="first">
    <p>
      {{
        $t(
          "Nothing on this list is cut from boards, so there is nothing to lay out, to mill or to account for.",
        )
      }}
    </p>
    <p v-if="bought">
      <b>{{ $t("Bought as it is:") }}</b> {{ bought }}.
    </p>
    <p v-if="sheet">
      <b>{{ $t("Cut from sheet:") }}</b> {{ sheet }}.
    </p>
    <p>
      <I18nT keypath="{buy} says how much of it to get; a part's stock is set on the {list}." scope="global"
        ><template #buy
          ><RouterLink :to="{ name: 'buy', params: { project: pk } }">{{ $t("Buy") }}</RouterLink></template
        ><template #list
          ><RouterLink :to="{ name: 'list', params: { project: pk } }">{{ $t("List") }}</RouterLink></template
        ></I18nT
      >
    </p>
  </div>
</template>

<style scoped>
.first p {
  margin: 0 0 0.6rem;
  font-size: 1.15rem;
}
</style>

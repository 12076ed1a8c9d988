<script setup lang="ts">
/** The chance that the cart covers the list, faults that nobody sees before skimming counted. */
import { I18nT } from "vue-i18n";
import { ElProgress } from "element-plus";
import "element-plus/es/components/progress/style/css";
import { computed, toRef } from "vue";
import { useCartChance, type BoardOffer } from "../../../api/buying";
import { perCent } from "../words";
import { t } from "../../../i18n/i18n";

const props = defineProps<{ project: number; supplier: string; cart: readonly BoardOffer[] }>();
/** The boards as they were looked at. */
const marks = computed(() => (props.cart.length ? JSON.stringify(props.cart.map((o) => o.offer.board)) : ""));
const { data, isFetching } = useCartChance(toRef(props, "project"), toRef(props, "supplier"), marks);
const more = computed(() => {
  const n = data.value?.more ?? 0;
  return n
    ? t(
        "; {n} more board as they come would in nine of ten | ; {n} more boards as they come would in nine of ten",
        n,
      )
    : "";
});
</script>

<template>
  <div v-if="cart.length && (data || isFetching)" class="chance">
    <p v-if="data">
      <I18nT keypath="Covers the list with a chance of {chance} ± {error}" scope="global"
        ><template #chance
          ><b>{{ perCent(data.chance) }}</b></template
        ><template #error>{{ perCent(data.error) }}</template></I18nT
      >{{ more }}.
      <span class="soft">{{ $t("Faults that show only once a board is skimmed are counted.") }}</span>
    </p>
    <template v-else>
      <p class="soft">{{ $t("Laying the list out on the cart…") }}</p>
      <ElProgress :percentage="100" indeterminate :show-text="false" :stroke-width="6" />
    </template>
  </div>
</template>

<style scoped>
.chance {
  flex: 1 1 18rem;
}
</style>

<script setup lang="ts">
/** What lengths or sheets cost where they are sold, the cheapest first. */
import type { Schemas } from "../../../api/client";
import Len from "../../../controls/Len.vue";
import type { System } from "../../../measure";
import { t } from "../../../i18n/i18n";
import { amount } from "../words";
import { cutting } from "./cutting";

/** `width` is that of the parts: broader stock is ripped to it; 0 for sheets. */
const props = defineProps<{ offers: Schemas["FinishedOfferBody"][]; width: number; system: System }>();
type Item = Schemas["FinishedItemBody"];
/** So many are named. */
const MOST = 5;
const ripped = (item: Item) =>
  item.across > 1
    ? t(", ripped to {across} strips", { across: item.across })
    : item.width > props.width
      ? t(", ripped down")
      : "";
</script>

<template>
  <table v-if="offers.length" class="offers">
    <caption class="soft">
      {{
        $t("By the price books, true sizes")
      }}
    </caption>
    <tbody>
      <tr v-for="(o, i) in offers.slice(0, MOST)" :key="i" :class="{ first: !i }">
        <th scope="row">{{ o.supplier }}</th>
        <td>
          <div v-for="(item, k) in o.items" :key="k">
            {{ $t("{pieces} of", { pieces: item.pieces }) }}
            <Len :ticks="item.length" :system="system" bare /> ×
            <Len :ticks="item.width" :system="system" />{{ width ? ripped(item) : "" }}
            <div v-if="!i && item.cuts.length" class="soft">{{ cutting(item.cuts) }}</div>
          </div>
        </td>
        <td class="money">{{ amount(o.cost) }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.offers {
  border-collapse: collapse;
  max-width: 38rem;
}
caption {
  text-align: left;
}
th,
td {
  text-align: left;
  font-weight: 400;
  padding: 0.3rem 1rem 0.3rem 0;
  border-bottom: 1px solid var(--ink-faint);
}
.money {
  text-align: right;
  font-variant-numeric: tabular-nums;
}
.first .soft {
  font-weight: 400;
}
.first *:not(.soft) {
  font-weight: 700;
}
</style>

<script setup lang="ts">
/** What lengths or sheets cost where they are sold, the cheapest first. */
import type { Schemas } from "../../../api/client";
import Len from "../../../controls/Len.vue";
import type { System } from "../../../measure";
import { amount } from "../words";

/** `width` is that of the parts: broader stock is ripped to it; 0 for sheets. */
defineProps<{ offers: Schemas["FinishedOfferBody"][]; width: number; system: System }>();
/** So many are named. */
const MOST = 5;
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
          {{ $t("{pieces} of", { pieces: o.pieces }) }} <Len :ticks="o.length" :system="system" bare /> ×
          <Len :ticks="o.width" :system="system" /><template v-if="o.across > 1">{{
            $t(", ripped to {across} strips", { across: o.across })
          }}</template
          ><template v-else-if="width && o.width > width">{{ $t(", ripped down") }}</template>
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
.first * {
  font-weight: 700;
}
</style>

<script setup lang="ts">
/** Every piece: what it is, where it is now, and the board it came from. */
import { computed, ref } from "vue";
import type { Schemas } from "../../api/client";
import { t } from "../../i18n/i18n";

const props = defineProps<{ where: Schemas["WhereBody"][] }>();
const PLACES = ["rack", "rough", "resting", "milled", "panel", "glued up", "held long", "finished", "fitted"];
const SAYS: Record<string, string> = {
  rack: t("in the rack"),
  rough: t("cut rough"),
  resting: t("on stickers"),
  milled: t("milled"),
  panel: t("in a panel"),
  "glued up": t("in a thick piece"),
  "held long": t("held long"),
  finished: t("finished"),
  fitted: t("fitted"),
};
const asked = ref("");
const found = computed(() => {
  const words = asked.value.trim().toLowerCase();
  return props.where.filter(
    (w) =>
      !words || `${w.mark} ${w.name} ${w.board} ${w.piece} ${SAYS[w.place]}`.toLowerCase().includes(words),
  );
});
const counts = computed(() =>
  PLACES.map((p) => ({ place: p, n: props.where.filter((w) => w.place === p).length })).filter((c) => c.n),
);
</script>

<template>
  <div>
    <div class="find">
      <label class="field"
        ><span>{{ $t("Find a piece by its mark, name or board") }}</span
        ><input v-model="asked" class="line-input" type="search" :placeholder="$t('BR1, slat, O3')"
      /></label>
      <p class="figures">
        <span v-for="c in counts" :key="c.place"
          ><b>{{ c.n }}</b> {{ SAYS[c.place] }}</span
        >
      </p>
    </div>
    <table class="ruled">
      <thead>
        <tr>
          <th>{{ $t("Mark") }}</th>
          <th>{{ $t("Piece") }}</th>
          <th>{{ $t("Where it is") }}</th>
          <th>{{ $t("In the blank") }}</th>
          <th>{{ $t("From board") }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="w in found" :key="w.mark">
          <td>
            <b>{{ w.mark }}</b>
          </td>
          <td>{{ w.name }}</td>
          <td>{{ SAYS[w.place] }}</td>
          <td>{{ w.piece }}</td>
          <td>{{ w.board }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="!found.length" class="soft">{{ $t("No piece of this plan is called so.") }}</p>
  </div>
</template>

<style scoped>
.find {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem 2rem;
  align-items: end;
  margin-bottom: 1rem;
}
.find .field {
  flex: 0 1 22rem;
}
</style>

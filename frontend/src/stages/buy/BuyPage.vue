<script setup lang="ts">
/** What the list asks of the yard, before any board is seen. */
import { ElSlider } from "element-plus";
import { keepPreviousData, useQuery } from "@tanstack/vue-query";
import { computed, ref } from "vue";
import { api } from "../../api/client";
import { useProject } from "../../api/project";
import Len from "../../controls/Len.vue";
import MeasureField from "../../controls/MeasureField.vue";
import BoardDrawing from "../../board/BoardDrawing.vue";
import { woodColours } from "../../board/geometry";

const { pk, project } = useProject();
const waste = ref(30);
const stock = ref<number | null>(null);
const { data, error } = useQuery({
  queryKey: computed(() => ["needs", pk.value, waste.value, stock.value]),
  queryFn: async () =>
    (
      await api.GET("/api/projects/{project}/needs", {
        params: {
          path: { project: pk.value },
          query: { waste: waste.value / 100, ...(stock.value ? { stock_length: stock.value } : {}) },
        },
      })
    ).data!,
  placeholderData: keepPreviousData,
});
/** Sheets are laid out when asked for: that takes the engine a moment. */
const laying = ref(false);
const sheets = useQuery({
  queryKey: computed(() => ["sheets", pk.value, project.value?.version]),
  queryFn: async () =>
    (await api.GET("/api/projects/{project}/sheets", { params: { path: { project: pk.value } } })).data!
      .plans,
  enabled: laying,
});
const laidOut = (species: string, thickness: number) =>
  (sheets.data.value ?? []).filter((p) => p.species === species && p.thickness === thickness);
const total = computed(() => ({
  feet: data.value?.needs.reduce((sum, n) => sum + n.to_buy, 0) ?? 0,
  cost: data.value?.needs.reduce((sum, n) => sum + (n.cost ?? 0), 0) ?? 0,
  unpriced: data.value?.needs.filter((n) => n.cost === null).length ?? 0,
}));
const most = computed(() =>
  Math.max(1, ...(data.value?.needs.map((n) => Math.max(n.to_buy, n.on_hand)) ?? [])),
);
</script>

<template>
  <section v-if="project" class="stage">
    <div class="stage-head">
      <h1>Buy</h1>
      <div class="figures grow">
        <div>
          <span class="figure">{{ data ? total.feet.toFixed(1) : "–" }}</span><span class="label"
            >board feet to ask for</span
          >
        </div>
        <div v-if="total.cost">
          <span class="figure">{{ total.cost.toFixed(2) }}</span><span class="label"
            >about, at the price of the boards on hand{{
              total.unpriced ? `; ${total.unpriced} without a price` : ""
            }}</span
          >
        </div>
      </div>
      <label class="field waste"
        ><span>Extra for waste: {{ waste }} %</span
        ><ElSlider v-model="waste" :min="0" :max="100" :step="5" :show-tooltip="false"
      /></label>
    </div>
    <p v-if="error" class="note">{{ error.message }}</p>
    <p v-if="!project.parts.length">
      There is nothing to buy for yet.
      <RouterLink :to="{ name: 'list', params: { project: pk } }">Write the list first.</RouterLink>
    </p>
    <div v-for="n in data?.needs ?? []" :key="n.species + n.quarter" class="need">
      <div class="what">
        <h2>
          {{ n.species }} <b class="quarter">{{ n.quarter || "built up" }}</b>
        </h2>
        <p class="soft">{{ n.pieces }} parts: {{ n.parts.join(", ") }}</p>
      </div>
      <div class="bars">
        <div
          class="bar"
          :style="{ width: `${(n.to_buy / most) * 100}%`, background: woodColours(n.species)[0] }"
        >
          <span
            class="net"
            :style="{ width: `${(n.net / n.to_buy) * 100}%`, background: woodColours(n.species)[1] }"
          />
        </div>
        <p>
          <b>{{ n.to_buy.toFixed(1) }} bd ft</b> to ask for: {{ n.net.toFixed(1) }} in rough blanks,
          {{ (n.to_buy - n.net).toFixed(1) }} for waste.
          <template v-if="n.on_hand"
            >{{ n.on_hand.toFixed(1) }} on hand<template v-if="n.on_hand >= n.to_buy"
              >: enough by the measure, whether the boards fit the parts only Lay out can say.</template
            ><template v-else>, {{ (n.to_buy - n.on_hand).toFixed(1) }} short.</template></template
          >
          <template v-else>None on hand.</template>
        </p>
        <p>
          Look for boards of at least <b><Len :ticks="n.longest" :system="project.system" /></b> clear of
          checks, and <b><Len :ticks="n.widest" :system="project.system" /></b> wide.
          <span v-if="n.cost !== null" class="soft"
            >At {{ n.price?.toFixed(2) }} a board foot: {{ n.cost.toFixed(2) }}.</span
          >
        </p>
      </div>
    </div>
    <div v-for="s in data?.sheets ?? []" :key="`s${s.species}${s.thickness}`" class="need">
      <div class="what">
        <h2>
          {{ s.species }} sheet <b class="quarter"><Len :ticks="s.thickness" :system="project.system" /></b>
        </h2>
        <p class="soft">{{ s.pieces }} parts: {{ s.parts.join(", ") }}</p>
      </div>
      <div class="bars">
        <p>
          <b>{{ s.sheets }} sheet{{ s.sheets === 1 ? "" : "s" }}</b> of
          <Len :ticks="s.sheet[0]!" :system="project.system" bare /> ×
          <Len :ticks="s.sheet[1]!" :system="project.system" />, cut in rows along it<template
            v-if="s.sheets > s.least"
            >; {{ s.least }} by area alone</template
          >.
        </p>
        <button v-if="!laying" class="act" @click="laying = true">Lay them out</button>
        <p v-else-if="sheets.isFetching.value" class="soft">Laying them out…</p>
        <template v-for="plan in laidOut(s.species, s.thickness)" :key="`${plan.species}${plan.thickness}`">
          <p>
            <b>{{ plan.sheets }}</b> when laid out{{
              plan.sheets <= plan.least ? ": fewer cannot be" : `; never under ${plan.least}`
            }}. Crosscut the sheet at the red lines, then rip each piece.
          </p>
          <div class="cuts">
            <BoardDrawing
              v-for="(b, i) in plan.boards"
              :key="b.id"
              :board="b"
              :segments="plan.cut[i]"
              :parts="plan.parts"
              :scale="4"
              :system="project.system"
            />
          </div>
        </template>
        <p v-if="s.grained" class="soft">
          {{ s.grained }} of the parts follow its grain, which runs the long way.
        </p>
        <p v-if="s.too_large.length" class="note">
          {{ s.too_large.join(", ") }} {{ s.too_large.length === 1 ? "is" : "are" }} larger than a sheet: join
          two, or change the grain.
        </p>
      </div>
    </div>
    <div v-for="n in data?.lengths ?? []" :key="`n${n.species}${n.width}${n.thickness}`" class="need">
      <div class="what">
        <h2>
          {{ n.species }}
          <b class="quarter"
            ><Len :ticks="n.width" :system="project.system" bare /> ×
            <Len :ticks="n.thickness" :system="project.system"
          /></b>
        </h2>
        <p class="soft">{{ n.pieces }} pieces: {{ n.parts.join(", ") }}</p>
      </div>
      <div class="bars">
        <p>
          <b>{{ n.lengths }} length{{ n.lengths === 1 ? "" : "s" }}</b> of
          <Len :ticks="n.stock_length" :system="project.system" />, bought finished<template v-if="n.spare"
            >; {{ n.spare }} more of the longest piece to spare</template
          ><template v-if="n.lengths > n.least">. {{ n.least }} by length alone</template>.
        </p>
        <p class="soft">{{ n.cuts.map((c) => c.join(" + ")).join("; ") }}</p>
        <MeasureField
          class="stock"
          label="Sold in lengths of"
          :system="project.system"
          :model-value="n.stock_length"
          @update:model-value="stock = $event"
        />
        <p v-if="n.too_long.length" class="note">
          {{ n.too_long.join(", ") }} {{ n.too_long.length === 1 ? "is" : "are" }} longer than that.
        </p>
      </div>
    </div>
    <p v-if="data?.needs.length" class="soft foot">
      Thickness is bought by the rough quarter, the thinnest whose skimmed thickness still gives the part. Ask
      for lengths, not for ‘boards’: a long part needs a long board, and a handsome one whose check runs past
      it is the wrong one.
    </p>
  </section>
</template>

<style scoped>
.waste {
  width: 15rem;
}
.waste input {
  accent-color: var(--chalk);
  min-height: 36px;
}
.need {
  display: grid;
  grid-template-columns: 18rem minmax(0, 1fr);
  gap: 1rem 2rem;
  padding: 1.1rem 0;
  border-top: 2px solid var(--ink);
}
.stock {
  max-width: 12rem;
}
.quarter {
  font-stretch: 100%;
  margin-left: 0.3rem;
}
.bars {
  display: flex;
  flex-direction: column;
  gap: 0.5rem;
}
.bar {
  height: 38px;
  border: 1.5px solid var(--ink);
}
.net {
  display: block;
  height: 100%;
  border-right: 3px solid var(--crayon);
}
.foot {
  border-top: 2px solid var(--ink);
  padding-top: 1rem;
  max-width: 48rem;
}
@media (max-width: 760px) {
  .need {
    grid-template-columns: 1fr;
  }
}
</style>

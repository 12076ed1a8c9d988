<script setup lang="ts">
/** What is bought otherwise than by the board foot: sheets, and finished sizes in stock lengths. */
import { I18nT } from "vue-i18n";
import { ElButton, ElSkeleton } from "element-plus";
import "element-plus/es/components/skeleton/style/css";
import { useQuery } from "@tanstack/vue-query";
import { computed, ref } from "vue";
import { api, type Schemas } from "../../../api/client";
import { useProject } from "../../../api/project";
import BoardDrawing from "../../../board/BoardDrawing.vue";
import Len from "../../../controls/Len.vue";
import MeasureField from "../../../controls/MeasureField.vue";
import { cutting } from "./cutting";
import FinishedOffers from "./FinishedOffers.vue";

defineProps<{ sheets: Schemas["SheetNeedBody"][]; lengths: Schemas["LengthNeedBody"][] }>();
const emit = defineEmits<{ stock: [number] }>();
const { pk, project } = useProject();
/** Sheets are laid out when asked for: that takes the engine a moment. */
const laying = ref(false);
const plans = useQuery({
  queryKey: computed(() => ["sheets", pk.value, project.value?.version]),
  queryFn: async () =>
    (await api.GET("/api/projects/{project}/sheets", { params: { path: { project: pk.value } } })).data!
      .plans,
  enabled: laying,
});
const laidOut = (species: string, thickness: number) =>
  (plans.data.value ?? []).filter((p) => p.species === species && p.thickness === thickness);
</script>

<template>
  <div v-if="project">
    <div v-for="s in sheets" :key="`s${s.species}${s.thickness}`" class="need">
      <div>
        <h2>
          {{ $t("{species} sheet", { species: s.species }) }}
          <b><Len :ticks="s.thickness" :system="project.system" /></b>
        </h2>
        <p class="soft">
          {{ $t("{n} part: {parts} | {n} parts: {parts}", { parts: s.parts.join(", ") }, s.pieces) }}
        </p>
      </div>
      <div class="told">
        <p>
          <I18nT keypath="{sheets} of {size}, cut in rows along it" scope="global"
            ><template #sheets
              ><b>{{ $t("{n} sheet | {n} sheets", s.sheets) }}</b></template
            ><template #size
              ><Len :ticks="s.sheet[0]!" :system="project.system" bare /> ×
              <Len :ticks="s.sheet[1]!" :system="project.system" /></template></I18nT
          ><template v-if="s.sheets > s.least">{{
            $t("; {least} by area alone", { least: s.least })
          }}</template
          >.
        </p>
        <ElButton v-if="!laying" class="act" @click="laying = true">{{ $t("Lay them out") }}</ElButton>
        <ElSkeleton v-else-if="plans.isFetching.value" :rows="2" animated />
        <template v-for="plan in laidOut(s.species, s.thickness)" :key="`${plan.species}${plan.thickness}`">
          <p>
            <I18nT
              :keypath="
                plan.sheets <= plan.least
                  ? '{sheets} when laid out: fewer cannot be.'
                  : '{sheets} when laid out; never under {least}.'
              "
              scope="global"
              ><template #sheets
                ><b>{{ plan.sheets }}</b></template
              ><template #least>{{ plan.least }}</template></I18nT
            >
            {{ $t("Crosscut the sheet at the red lines, then rip each piece.") }}
          </p>
          <BoardDrawing
            v-for="(b, i) in plan.boards"
            :key="b.id"
            :board="b"
            :segments="plan.cut[i]"
            :parts="plan.parts"
            :scale="4"
            :system="project.system"
          />
        </template>
        <FinishedOffers :offers="s.offers" :width="0" :system="project.system" />
        <p v-if="s.grained" class="soft">
          {{
            $t(
              "{n} of the parts follows its grain, which runs the long way. | {n} of the parts follow its grain, which runs the long way.",
              s.grained,
            )
          }}
        </p>
        <p v-if="s.too_large.length" class="note">
          {{
            $t(
              "{parts} is larger than a sheet: join two, or change the grain. | {parts} are larger than a sheet: join two, or change the grain.",
              { parts: s.too_large.join(", ") },
              s.too_large.length,
            )
          }}
        </p>
      </div>
    </div>
    <div v-for="n in lengths" :key="`n${n.species}${n.width}${n.thickness}`" class="need">
      <div>
        <h2>
          {{ n.species }}
          <b
            ><Len :ticks="n.width" :system="project.system" bare /> ×
            <Len :ticks="n.thickness" :system="project.system"
          /></b>
        </h2>
        <p class="soft">
          {{ $t("{n} piece: {parts} | {n} pieces: {parts}", { parts: n.parts.join(", ") }, n.pieces) }}
        </p>
      </div>
      <div class="told">
        <p>
          <I18nT keypath="{lengths} of {length}, bought finished" scope="global"
            ><template #lengths
              ><b>{{ $t("{n} length | {n} lengths", n.lengths) }}</b></template
            ><template #length><Len :ticks="n.stock_length" :system="project.system" /></template></I18nT
          ><template v-if="n.spare">{{
            $t("; {spare} more of the longest piece to spare", { spare: n.spare })
          }}</template
          ><template v-if="n.lengths > n.least">{{
            $t(". {least} by length alone", { least: n.least })
          }}</template
          >.
          <span v-if="n.cuts.length" class="soft">{{ $t("Cut: {cuts}.", { cuts: cutting(n.cuts) }) }}</span>
        </p>
        <p v-if="n.shorter" class="note">
          <span
            ><I18nT
              keypath="The kerf is why it takes {lengths}: were every piece {by} shorter, {then} would do."
              scope="global"
              ><template #lengths>{{ n.lengths }}</template
              ><template #by><Len :ticks="n.shorter" :system="project.system" /></template
              ><template #then>{{ n.then }}</template></I18nT
            ></span
          >
        </p>
        <FinishedOffers :offers="n.offers" :width="n.width" :system="project.system" />
        <MeasureField
          class="stock"
          :label="$t('Sold in lengths of')"
          :system="project.system"
          :model-value="n.stock_length"
          @update:model-value="emit('stock', $event)"
        />
        <p v-if="n.too_long.length" class="note">
          {{
            $t(
              "{parts} is longer than that. | {parts} are longer than that.",
              { parts: n.too_long.join(", ") },
              n.too_long.length,
            )
          }}
        </p>
      </div>
    </div>
  </div>
</template>

<style scoped>
.need {
  display: grid;
  grid-template-columns: 18rem minmax(0, 1fr);
  gap: 1rem 2rem;
  padding: 1.1rem 0;
  border-bottom: 2px solid var(--ink);
}
.told {
  display: flex;
  flex-direction: column;
  gap: 0.5rem;
}
.told > .act {
  align-self: flex-start;
}
.stock {
  max-width: 12rem;
}
@media (max-width: 760px) {
  .need {
    grid-template-columns: 1fr;
  }
}
</style>

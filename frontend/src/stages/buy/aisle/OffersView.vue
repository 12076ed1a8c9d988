<script setup lang="ts">
/** The boards looked at, the ticket checked, and the cheapest set of them. */
import {
  ElAlert,
  ElButton,
  ElEmpty,
  ElMessage,
  ElPopconfirm,
  ElTable,
  ElTableColumn,
  ElTag,
} from "element-plus";
import "element-plus/es/components/alert/style/css";
import "element-plus/es/components/empty/style/css";
import "element-plus/es/components/popconfirm/style/css";
import "element-plus/es/components/table/style/css";
import "element-plus/es/components/table-column/style/css";
import "element-plus/es/components/tag/style/css";
import { computed, ref, watch } from "vue";
import { useRouter } from "vue-router";
import type { BoardOffer } from "../../../api/buying";
import { useProject } from "../../../api/project";
import ChoiceField from "../../../controls/fields/ChoiceField.vue";
import Len from "../../../controls/Len.vue";
import { withErrorToast } from "../../../controls/withErrorToast";
import CartChance from "./CartChance.vue";
import { useAisle } from "./useAisle";
import VerdictCard from "./VerdictCard.vue";
import { weight, wood } from "../../../wood";
import { amount, counted, VERDICTS } from "../words";
import { t } from "../../../i18n/i18n";

/** As many boards as a pile has that is asked for. */
const PILE = 23;
const { pk, project } = useProject();
const router = useRouter();
const { suppliers, supplier, at, offers, cart, wanted, isWaiting, record, buying } = useAisle(pk);
const { pile, cheapest, drop, bringHome } = buying;
const name = (id: string) => project.value?.parts.find((p) => p.id === id)?.name || id;
const chosen = ref<Awaited<ReturnType<typeof cheapest.mutateAsync>>>();
watch([supplier, offers], () => (chosen.value = undefined));
const take = computed(() => new Set(chosen.value?.take ?? []));
const sold = computed(() =>
  (wanted.value ?? []).flatMap((w) =>
    (at.value?.prices ?? [])
      .filter((p) => `${p.species} ${p.quarter}` === w.key)
      .slice(0, 1)
      .map((p) => ({ key: w.key, species: p.species, quarter: p.quarter, remaining: w.remaining })),
  ),
);
const ticket = computed(() => ({
  due: cart.value.reduce((sum, o) => sum + Number(o.offer.board.price ?? 0), 0),
  feet: cart.value.reduce((sum, o) => sum + o.feet, 0),
  over: cart.value.reduce((sum, o) => sum + o.over, 0),
  kg: cart.value.reduce((sum, o) => sum + (o.kg ?? 0), 0),
  longest: Math.max(0, ...cart.value.map((o) => o.offer.board.length)),
}));
const lie = (species: string, quarter: string) =>
  withErrorToast(async () => {
    await pile.mutateAsync({ supplier: supplier.value, species, quarter, count: PILE });
  });
const choose = () =>
  withErrorToast(async () => {
    chosen.value = await cheapest.mutateAsync(supplier.value);
  });
const move = (o: BoardOffer) => record({ ...o.offer, state: o.offer.state === "cart" ? "pile" : "cart" });
async function takeChosen(): Promise<void> {
  for (const o of offers.value.filter((one) => take.value.has(one.offer.board.id)))
    await record({ ...o.offer, state: "cart" });
}
const home = () =>
  withErrorToast(async () => {
    const bought = await bringHome.mutateAsync();
    ElMessage({
      type: "success",
      message: t("{boards} lie in the rack now", { boards: bought.boards.join(", ") }),
    });
    await router.push({ name: "boards", params: { project: pk.value } });
  });
const TYPES = { take: "success", even: "warning", leave: "danger", "not-wanted": "info" } as const;
</script>

<template>
  <div v-if="project">
    <div class="head">
      <ChoiceField
        v-model="supplier"
        :label="$t('At')"
        :options="(suppliers ?? []).map((s) => [s.id, s.name])"
      />
      <div v-for="s in sold" :key="s.key">
        <ElButton class="act" :disabled="pile.isPending.value" @click="lie(s.species, s.quarter)">
          {{ $t("What lies there of {key}", { key: s.key }) }}
        </ElButton>
      </div>
      <ElButton v-if="offers.length" class="act lead" :disabled="cheapest.isPending.value" @click="choose">
        {{ cheapest.isPending.value ? $t("Choosing…") : $t("Choose the cheapest") }}
      </ElButton>
    </div>
    <ul v-if="wanted.length" class="wanted">
      <li v-for="w in wanted" :key="w.key">
        <b>{{ w.key }}</b>:
        <template v-if="w.remaining">{{
          $t("{remaining} of {pieces} still wanted: {missing}", {
            remaining: w.remaining,
            pieces: w.pieces,
            missing: counted(w.missing, name),
          })
        }}</template><template v-else>{{
          $t("the cart gives all {pieces}. Enough: stop here.", { pieces: w.pieces })
        }}</template>
      </li>
    </ul>
    <ElAlert
      v-if="chosen"
      :type="Object.keys(chosen.left_out).length ? 'warning' : 'success'"
      :closable="false"
      class="told"
    >
      <template #title>
        <b v-if="chosen.take.length">{{
          $t("Of these {offers}, take {take}", { offers: offers.length, take: chosen.take.length })
        }}</b><b v-else>{{ $t("Take none of them") }}</b
        ><template v-if="chosen.take.length"
          >: {{ chosen.take.join(", ") }}, {{ amount(chosen.cost) }}.</template
        >
        <template v-if="Object.keys(chosen.left_out).length">
          {{
            " " + $t("They do not give {left_out}.", { left_out: counted(chosen.left_out, name) })
          }}</template
        >
        <ElButton v-if="chosen.take.length" class="act" @click="takeChosen">{{
          $t("Put these in the cart")
        }}</ElButton>
      </template>
    </ElAlert>
    <ElEmpty
      v-if="!offers.length"
      :image-size="70"
      :description="
        $t('Boards you look at in the aisle stand here with their verdicts, the cart and the ticket.')
      "
    />
    <ElTable v-else :data="offers" row-key="offer.board.id" size="large">
      <ElTableColumn type="expand">
        <template #default="{ row }"
          ><div class="card">
            <VerdictCard
              :project="pk"
              :supplier="supplier"
              :looked="row as BoardOffer"
              :parts="project.parts"
              :system="project.system"
            /></div
        ></template>
      </ElTableColumn>
      <ElTableColumn :label="$t('Board')" width="110">
        <template #default="{ row }"
          ><b>{{ row.offer.board.id }}</b></template
        >
      </ElTableColumn>
      <ElTableColumn :label="$t('Size')" min-width="190">
        <template #default="{ row }"
          ><Len :ticks="row.offer.board.length" :system="project.system" bare /> ×
          <Len
            :ticks="row.offer.board.stations[0].y1 - row.offer.board.stations[0].y0"
            :system="project.system"
          />
          <span class="soft kind">{{ row.offer.board.quarter }} {{ row.offer.board.species }}</span></template
        >
      </ElTableColumn>
      <ElTableColumn :label="$t('Verdict')" min-width="190">
        <template #default="{ row }">
          <ElTag v-if="isWaiting(row.offer.board.id)" type="info">{{ $t("waits for the server") }}</ElTag>
          <ElTag
            v-else-if="row.verdict"
            :type="TYPES[row.verdict.word as keyof typeof TYPES]"
            effect="dark"
            >{{ VERDICTS[row.verdict.word as keyof typeof VERDICTS] }}</ElTag
          >
          <ElTag v-if="take.has(row.offer.board.id)" class="pick">{{ $t("chosen") }}</ElTag>
        </template>
      </ElTableColumn>
      <ElTableColumn :label="$t('Worth')" align="right" width="90">
        <template #default="{ row }">{{ row.verdict ? amount(row.verdict.worth) : "–" }}</template>
      </ElTableColumn>
      <ElTableColumn :label="$t('Asked')" align="right" width="90">
        <template #default="{ row }">{{ amount(Number(row.offer.board.price ?? 0)) }}</template>
      </ElTableColumn>
      <ElTableColumn :label="$t('Ticket')" align="right" width="130">
        <template #default="{ row }">
          <span v-if="row.over_feet" :class="{ over: row.over_feet > 0 }"
            >{{ row.over_feet > 0 ? "+" : "−" }}{{ wood(Math.abs(row.over_feet), project.system) }}</span
          >
          <template v-else>{{ row.offer.ticket_feet === null ? "–" : $t("right") }}</template>
        </template>
      </ElTableColumn>
      <ElTableColumn label="" width="240" align="right">
        <template #default="{ row }">
          <ElButton class="act" @click="move(row as BoardOffer)">
            {{ row.offer.state === "cart" ? $t("Back on the pile") : $t("In the cart") }}
          </ElButton>
          <ElPopconfirm
            :title="$t('Forget this board?')"
            :confirm-button-text="$t('Forget it')"
            :cancel-button-text="$t('Keep it')"
            @confirm="withErrorToast(async () => void (await drop.mutateAsync(row.offer.board.id)))"
          >
            <template #reference
              ><ElButton class="act quiet" :aria-label="$t('Forget {id}', { id: row.offer.board.id })"
                >✕</ElButton
              ></template
            >
          </ElPopconfirm>
        </template>
      </ElTableColumn>
    </ElTable>
    <div v-if="cart.length" class="cart">
      <div class="figures">
        <div>
          <span class="figure">{{ cart.length }}</span><span class="label">{{
            $t("board in the cart | boards in the cart", cart.length)
          }}</span>
        </div>
        <div>
          <span class="figure">{{ amount(ticket.due) }}</span><span class="label">{{
            $t("by the tickets")
          }}</span>
        </div>
        <div>
          <span class="figure">{{ wood(ticket.feet, project.system) }}</span><span class="label">{{
            $t("by the tape")
          }}</span>
        </div>
        <div v-if="ticket.kg">
          <span class="figure">{{ weight(ticket.kg, project.system) }}</span><span class="label">{{
            $t("to carry")
          }}</span>
        </div>
        <div>
          <span class="figure"><Len :ticks="ticket.longest" :system="project.system" /></span
          ><span class="label">{{ $t("the longest") }}</span>
        </div>
      </div>
      <CartChance :project="pk" :supplier="supplier" :cart="cart" />
      <p v-if="ticket.over > 0.005" class="note">
        {{
          $t("The tickets ask {over} more than the tape and {name}'s rule. Ask before you pay.", {
            over: amount(ticket.over),
            name: at?.name,
          })
        }}
      </p>
      <ElButton class="act lead" :disabled="bringHome.isPending.value" @click="home">
        {{ $t("Bought: bring them home") }}
      </ElButton>
    </div>
  </div>
</template>

<style scoped>
.head,
.cart {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem 1.2rem;
  align-items: end;
  margin-bottom: 0.8rem;
}
.head > .field {
  min-width: 15rem;
}
.wanted {
  margin: 0 0 0.8rem;
  padding-left: 1.1rem;
}
.told {
  margin-bottom: 0.8rem;
}
.card {
  padding: 0.6rem 1rem;
  max-width: 70rem;
}
.kind {
  margin-left: 0.6rem;
}
.pick {
  margin-left: 0.4rem;
}
.over {
  color: var(--crayon-ink);
  font-weight: 650;
}
.cart {
  border-top: 2px solid var(--ink);
  padding-top: 0.8rem;
  margin-top: 0.8rem;
}
</style>

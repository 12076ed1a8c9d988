<script setup lang="ts">
/** In the aisle with the phone: boards looked at, the cart, and the next board. */
import { I18nT } from "vue-i18n";
import { ElButton, ElEmpty, ElTag } from "element-plus";
import "element-plus/es/components/empty/style/css";
import "element-plus/es/components/tag/style/css";
import { computed, ref } from "vue";
import { useRoute, useRouter } from "vue-router";
import type { BoardOffer, OfferPut } from "../../../api/buying";
import { useProject } from "../../../api/project";
import ChoiceField from "../../../controls/fields/ChoiceField.vue";
import Len from "../../../controls/Len.vue";
import CartChance from "./CartChance.vue";
import LookForm from "./LookForm.vue";
import { useAisle } from "./useAisle";
import VerdictCard from "./VerdictCard.vue";
import { amount, counted, VERDICTS } from "../words";
import { weight } from "../../../wood";
import { t } from "../../../i18n/i18n";

const { pk, project } = useProject();
const route = useRoute();
const router = useRouter();
const { suppliers, supplier, at, offers, cart, wanted, words, waits, waitingOf, isWaiting, forget, record } =
  useAisle(pk);
/** What is on the screen is in the address, so that the phone's own Back goes to the boards. */
const looking = computed(() => route.query.look !== undefined);
const open = computed(() => offers.value.find((o) => o.offer.board.id === route.query.board));
/** What the verdict leads to. */
const leave = computed(
  () => open.value?.verdict?.word === "leave" || open.value?.verdict?.word === "not-wanted",
);
const go = (query: Record<string, string>) => void router.push({ query });
const back = () => void router.replace({ query: {} });
const busy = ref(false);
const name = (id: string) => project.value?.parts.find((p) => p.id === id)?.name || id;
const woods = computed(() => {
  const asked = (wanted.value ?? []).map((w) => w.key);
  const sold = (at.value?.prices ?? []).map((p) => [p.species, p.quarter] as [string, string]);
  const first = sold.filter(([s, n]) => asked.includes(`${s} ${n}`));
  return [...new Map([...first, ...sold].map((pair) => [pair.join("|"), pair])).values()];
});
const mark = computed(() => {
  const taken = new Set([...offers.value.map((o) => o.offer.board.id)]);
  for (let n = 1; ; n++) if (!taken.has(`Y${n}`)) return `Y${n}`;
});
async function judge(offer: OfferPut): Promise<void> {
  busy.value = true;
  await record(offer);
  busy.value = false;
  await router.replace({ query: { board: offer.board.id } });
}
async function put(o: BoardOffer, state: "cart" | "left" | "pile"): Promise<void> {
  busy.value = true;
  await record({ ...o.offer, state });
  busy.value = false;
  back();
}
const spent = computed(() => cart.value.reduce((sum, o) => sum + Number(o.offer.board.price ?? 0), 0));
const kg = computed(() => cart.value.reduce((sum, o) => sum + (o.kg ?? 0), 0));
const longest = computed(() => Math.max(0, ...cart.value.map((o) => o.offer.board.length)));
const remaining = computed(() => (wanted.value ?? []).reduce((sum, w) => sum + w.remaining, 0));
const pieces = computed(() => (wanted.value ?? []).reduce((sum, w) => sum + w.pieces, 0));
const STATES = { cart: t("in the cart"), pile: t("looked at"), left: t("left") } as const;
</script>

<template>
  <main v-if="project" class="aisle">
    <LookForm
      v-if="looking && at"
      :mark="mark"
      :woods="woods"
      :supplier="at"
      :words="words ?? []"
      :system="project.system"
      @judge="judge"
      @leave="back"
    />
    <section v-else-if="open" class="one">
      <header>
        <ElButton class="act quiet" @click="back">{{ $t("‹ Boards") }}</ElButton>
        <h1>
          {{ open.offer.board.id }}: <Len :ticks="open.offer.board.length" :system="project.system" bare /> ×
          <Len
            :ticks="open.offer.board.stations[0]!.y1 - open.offer.board.stations[0]!.y0"
            :system="project.system"
          />
        </h1>
      </header>
      <p v-if="waitingOf(open.offer.board.id)?.why" class="note">
        <span>{{
          $t(
            "The server does not take this board: {why}. It is kept here until it is put right or forgotten.",
            { why: waitingOf(open.offer.board.id)?.why },
          )
        }}</span>
        <ElButton class="act" @click="(forget(waitingOf(open.offer.board.id)!), back())">{{
          $t("Forget it")
        }}</ElButton>
      </p>
      <p v-else-if="isWaiting(open.offer.board.id)" class="note">
        {{ $t("The server is out of reach: the board is kept here, and judged when it answers.") }}
      </p>
      <VerdictCard
        :project="pk"
        :supplier="supplier"
        :looked="open"
        :parts="project.parts"
        :system="project.system"
      />
      <footer>
        <ElButton
          class="act"
          :class="{ lead: leave }"
          :disabled="busy"
          @click="put(open, open.offer.state === 'cart' ? 'pile' : 'left')"
        >
          {{ open.offer.state === "cart" ? $t("Back on the pile") : $t("Leave it") }}
        </ElButton>
        <ElButton
          v-if="open.offer.state !== 'cart'"
          class="act"
          :class="{ lead: !leave }"
          :disabled="busy"
          @click="put(open, 'cart')"
        >
          {{ $t("In the cart") }}
        </ElButton>
      </footer>
    </section>
    <section v-else class="all">
      <header>
        <RouterLink
          class="act quiet"
          :to="{ name: 'buy', params: { project: pk }, query: { view: 'offers' } }"
          >{{ $t("‹ Buy") }}</RouterLink
        >
        <h1>{{ $t("In the aisle") }}</h1>
      </header>
      <ChoiceField
        v-model="supplier"
        :label="$t('At')"
        :options="(suppliers ?? []).map((s) => [s.id, s.name])"
      />
      <div class="sum" role="status">
        <p v-if="wanted.length && !remaining" class="enough">
          {{ $t("Enough: the cart gives the whole list. Stop here.") }}
        </p>
        <p v-else-if="wanted.length">
          <I18nT keypath="{gained} of {pieces} pieces are in the cart" scope="global"
            ><template #gained
              ><b>{{ pieces - remaining }}</b></template
            ><template #pieces
              ><b>{{ pieces }}</b></template
            ></I18nT
          >
        </p>
        <p class="soft">
          {{ $t("{n} board | {n} boards", cart.length) }}, {{ amount(spent)
          }}<template v-if="kg">, {{ weight(kg, project.system) }}</template
          ><template v-if="longest"
            >,
            <I18nT keypath="the longest {length}" scope="global"
              ><template #length><Len :ticks="longest" :system="project.system" /></template></I18nT
          ></template>
        </p>
        <CartChance v-if="!waits.length" :project="pk" :supplier="supplier" :cart="cart" />
        <p v-for="w in wanted.filter((one) => one.remaining)" :key="w.key" class="soft">
          {{ w.key }}: {{ counted(w.missing, name) }}
        </p>
      </div>
      <p v-if="waits.length" class="note">
        {{
          $t(
            "{n} board waits for the server; kept in this phone. | {n} boards wait for the server; kept in this phone.",
            waits.length,
          )
        }}
      </p>
      <ElEmpty
        v-if="!offers.length"
        :image-size="60"
        :description="$t('Length, width and one look: a first word in ten seconds, a verdict in a minute.')"
      />
      <ul>
        <li v-for="o in offers" :key="o.offer.board.id">
          <button class="row" @click="go({ board: o.offer.board.id })">
            <b>{{ o.offer.board.id }}</b>
            <span
              ><Len :ticks="o.offer.board.length" :system="project.system" bare /> ×
              <Len
                :ticks="o.offer.board.stations[0]!.y1 - o.offer.board.stations[0]!.y0"
                :system="project.system"
              /><br /><span class="soft">{{ STATES[o.offer.state ?? "pile"] }}</span></span
            >
            <span class="end"
              ><ElTag v-if="isWaiting(o.offer.board.id)" type="info">{{ $t("waits") }}</ElTag
              ><template v-else-if="o.verdict"
                >{{ VERDICTS[o.verdict.word] }}<br /><span class="soft"
                  >{{ amount(o.verdict.worth) }} / {{ amount(o.verdict.price) }}</span
                ></template
              ></span
            >
          </button>
        </li>
      </ul>
      <ElButton class="act lead big" @click="go({ look: '' })">{{ $t("Look at a board") }}</ElButton>
    </section>
  </main>
</template>

<style scoped>
.aisle {
  max-width: 540px;
  min-height: 100dvh;
  margin: 0 auto;
  padding: 8px 12px 20px;
}
.one,
.all {
  display: flex;
  flex-direction: column;
  gap: 0.7rem;
  min-height: calc(100dvh - 28px);
}
header h1 {
  font-size: 1.15rem;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
  min-height: 48px;
}
.sum {
  border: 2px solid var(--ink);
  background: var(--paper);
  padding: 0.6rem 0.8rem;
}
.enough {
  font-weight: 720;
  font-size: 1.15rem;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.row {
  width: 100%;
  display: grid;
  grid-template-columns: 3.6rem 1fr auto;
  gap: 0.6rem;
  align-items: center;
  min-height: 60px;
  border: 0;
  border-bottom: 1px solid var(--ink-faint);
  background: none;
  text-align: left;
}
.end {
  text-align: right;
}
footer {
  display: flex;
  gap: 8px;
  margin-top: auto;
  position: sticky;
  bottom: 0;
  background: var(--plaster);
  padding: 10px 0 14px;
}
footer .act,
.big {
  flex: 1;
  min-height: 58px;
  font-size: 1.1rem;
}
.big {
  flex: none;
  margin-top: auto;
  position: sticky;
  bottom: 10px;
}
</style>

<script setup lang="ts">
/** The list bought at each supplier: money, hours, chance; and how much to take for the chance that is wanted. */
import { I18nT } from "vue-i18n";
import {
  ElAlert,
  ElButton,
  ElCheckbox,
  ElProgress,
  ElSegmented,
  ElTable,
  ElTableColumn,
  ElTag,
} from "element-plus";
import "element-plus/es/components/alert/style/css";
import "element-plus/es/components/progress/style/css";
import "element-plus/es/components/segmented/style/css";
import "element-plus/es/components/table/style/css";
import "element-plus/es/components/table-column/style/css";
import "element-plus/es/components/tag/style/css";
import { computed, ref } from "vue";
import { useBuying, useFirstLooks, useWays, type Way, type Wish } from "../../../api/buying";
import { useProject } from "../../../api/project";
import CountField from "../../../controls/fields/CountField.vue";
import { withErrorToast } from "../../../controls/withErrorToast";
import GroupAmounts from "./GroupAmounts.vue";
import Variations from "./Variations.vue";
import { wood, woodPrice } from "../../../wood";
import { amount, perCent } from "../words";
import { t } from "../../../i18n/i18n";

/** Trips simulated at first, and with each time more are asked for. */
const TRIPS = 12;
/** What saves less than this share is called about as much. */
const NEARLY = 0.03;
const { pk, project } = useProject();
const wish = ref<Wish>({ chance: 0.9, hour: 25, hand: false });
const CHANCES = [0.8, 0.9, 0.95].map((value) => ({ value, label: perCent(value) }));
const { data } = useWays(pk, wish);
const { simulate } = useBuying(pk);
const ways = computed(() => data.value?.ways ?? []);
const keyOf = (w: Way) => `${w.supplier}${w.grade}${w.milled}`;
const opened = ref("");
const isBest = (w: Way) => {
  const best = data.value?.recommended;
  return w.supplier === best?.supplier && w.grade === best.grade && w.milled === best.milled;
};
const shown = computed(
  () =>
    ways.value.find((w) => keyOf(w) === opened.value) ??
    ways.value.find((w) => w.way && isBest(w)) ??
    ways.value.find((w) => w.way),
);
const unknown = computed(() =>
  ways.value
    .filter((w) => !w.way && !w.milled)
    .map((w) => ({ key: keyOf(w), supplier: w.supplier, grade: w.grade })),
);
const firstLooks = useFirstLooks(
  pk,
  unknown,
  computed(() => wish.value.chance),
);
const first = (w: Way) => firstLooks.value.get(keyOf(w));
/** The usual money there with the trip left out, before anything was simulated. */
function about(w: Way): string {
  const groups = first(w);
  return groups?.length
    ? t("about {amount}", { amount: amount(groups.reduce((sum, g) => sum + g.cost, 0)) })
    : "–";
}
const begun = computed(() => ways.value.some((w) => w.trips));
const suppliers = computed(() => [
  ...new Map(ways.value.map((w) => [`${w.supplier}${w.grade}`, w])).values(),
]);
const running = computed(() => suppliers.value.filter((w) => w.done < w.trips && !w.trouble));
/** A recommendation needs an answer of every supplier. */
const allTried = computed(() => suppliers.value.every((w) => w.done || w.trouble));
const done = computed(() => suppliers.value.reduce((sum, w) => sum + w.done, 0));
const wanted = computed(() => suppliers.value.reduce((sum, w) => sum + w.trips, 0));

const ask = () =>
  withErrorToast(async () => {
    for (const w of suppliers.value)
      await simulate.mutateAsync({
        supplier: w.supplier,
        grade: w.grade as "",
        use_hand: wish.value.hand,
        trips: w.done + TRIPS,
        variation: null,
      });
  });
const nameOf = (supplier: string, grade: string) => {
  const name = ways.value.find((w) => w.supplier === supplier)?.name ?? supplier;
  return grade ? `${name}, ${grade}` : name;
};
/** Whether the one recommended costs about as much as the next. */
const isNear = computed(() => {
  const way = ways.value.find(isBest)?.way;
  const whole = way ? way.money + wish.value.hour * way.hours : 0;
  return (data.value?.recommended?.saves ?? 0) < NEARLY * whole;
});
/** What goes where, and what that saves beside the best single place. */
const mixed = computed(() => {
  const found = data.value?.mixture;
  if (!found) return null;
  const shares = found.shares
    .map((s) =>
      t("{woods} at {supplier}", {
        woods: s.groups.join(", "),
        supplier: `${nameOf(s.supplier, s.grade)}${s.milled ? t(", milled for you") : ""}`,
      }),
    )
    .join("; ");
  const whole = found.money + wish.value.hour * found.hours;
  const best = ways.value.find(isBest)?.way;
  const saves = best ? best.money + wish.value.hour * best.hours - whole : 0;
  const costs = t("{money} and {hours} h with all trips", {
    money: amount(found.money),
    hours: found.hours.toFixed(1),
  });
  return {
    shares,
    costs:
      saves > 0
        ? t("{costs}, {saves} less than at one place.", { costs, saves: amount(saves) })
        : `${costs}.`,
  };
});
const part = (id: string) => project.value?.parts.find((p) => p.id === id)?.name || id;

/** What stands against a way, or what is to be said of it. */
function remark(w: Way): string {
  if (w.trouble) return w.trouble;
  const way = w.way;
  if (!way)
    return (first(w) ?? [])
      .map((g) => `${g.key} ${g.amount ? wood(g.amount.value, project.value!.system) : t("hard to find")}`)
      .join(", ");
  if (way.lacking.length) return t("sells no {lacking}", { lacking: way.lacking.join(", no ") });
  if (way.cannot.length)
    return t("its boards rarely give {cannot}", { cannot: way.cannot.map(part).join(", ") });
  if (way.elsewhere >= 1) return t("asks for a machine you do not have");
  return way.risk > 0 ? t("{risk} that a pile there lacks a part", { risk: perCent(way.risk) }) : "";
}
const machines = (w: Way) =>
  Object.entries(w.way?.machine_hours ?? {})
    .map(([machine, hours]) => `${machine} ${hours.toFixed(1)} h`)
    .join(", ");
</script>

<template>
  <div v-if="project">
    <div class="wish">
      <div class="field">
        <span id="chance">{{ $t("The list is to be covered with a chance of") }}</span>
        <ElSegmented v-model="wish.chance" :options="CHANCES" aria-labelledby="chance" size="large" />
      </div>
      <CountField v-model="wish.hour" :label="$t('An hour of mine counts')" :min="0" :max="1000" :step="5" />
      <ElCheckbox v-model="wish.hand" size="large">{{ $t("Use the boards on hand first") }}</ElCheckbox>
      <ElButton
        class="act"
        :class="{ lead: !begun }"
        :disabled="!ways.length || running.length > 0"
        @click="ask"
      >
        {{ begun ? $t("Simulate {trips} more trips each", { trips: TRIPS }) : $t("Simulate buying it") }}
      </ElButton>
    </div>
    <p v-if="!begun" class="soft intro">
      {{
        $t(
          "Boards are drawn as each supplier has them: its sizes, grades, faults and warp. The list is laid out on them as your own plan would be, trip after trip, and milled by your machines' pace. A first look stands below; twelve trips to each take from some seconds to some minutes, by how long the list is.",
        )
      }}
    </p>
    <ElProgress
      v-if="running.length"
      :percentage="Math.round((100 * done) / Math.max(1, wanted))"
      :format="() => $t('{done} of {wanted} trips', { done, wanted })"
      :stroke-width="10"
    />
    <ElAlert v-if="data?.recommended && allTried" type="info" :closable="false" class="best">
      <template #title>
        <I18nT
          :keypath="
            data.recommended.only
              ? '{way} is the only one that gives the whole list with your machines.'
              : isNear
                ? '{way} costs about as much as {next}, with an hour at {hour}: look at the rest.'
                : '{way}: {saves} less than the next, {next}, with an hour at {hour}.'
          "
          scope="global"
          ><template #way
            ><b
              >{{ nameOf(data.recommended.supplier, data.recommended.grade)
              }}{{ data.recommended.milled ? $t(", milled for you") : "" }}</b
            ></template
          ><template #saves>{{ amount(data.recommended.saves) }}</template
          ><template #next>{{ nameOf(data.recommended.next, data.recommended.next_grade) }}</template
          ><template #hour>{{ amount(wish.hour) }}</template></I18nT
        >
      </template>
    </ElAlert>
    <ElAlert v-if="mixed && allTried" type="info" :closable="false" class="best">
      <template #title
        ><b>{{ $t("Bought at several places") }}</b
        >: {{ mixed.shares }}; {{ mixed.costs }}</template
      >
    </ElAlert>
    <ElTable
      v-if="ways.length"
      :data="ways"
      :row-key="keyOf"
      highlight-current-row
      :current-row-key="shown ? keyOf(shown) : ''"
      @row-click="(row: Way) => (opened = keyOf(row as Way))"
    >
      <ElTableColumn :label="$t('Where')" min-width="210">
        <template #default="{ row }">
          <button class="link" @click="opened = keyOf(row as Way)">
            {{ nameOf(row.supplier, row.grade) }}
          </button>
          <ElTag v-if="row.milled" type="info" class="tag">{{ $t("milled for you") }}</ElTag>
        </template>
      </ElTableColumn>
      <ElTableColumn :label="$t('Money')" align="right" width="130">
        <template #default="{ row }">{{ row.way ? amount(row.way.money) : about(row as Way) }}</template>
      </ElTableColumn>
      <ElTableColumn :label="$t('Hours')" align="right" width="90">
        <template #default="{ row }">{{ row.way ? row.way.hours.toFixed(1) : "–" }}</template>
      </ElTableColumn>
      <ElTableColumn :label="$t('With your hours')" align="right" width="140">
        <template #default="{ row }">{{
          row.way ? amount(row.way.money + wish.hour * row.way.hours) : "–"
        }}</template>
      </ElTableColumn>
      <ElTableColumn
        :label="begun ? $t('What stands against it') : $t('At a first look, as it comes')"
        min-width="260"
      >
        <template #default="{ row }">{{ remark(row as Way) }}</template>
      </ElTableColumn>
      <ElTableColumn :label="$t('Trips')" align="right" width="90">
        <template #default="{ row }">{{ row.done }}</template>
      </ElTableColumn>
    </ElTable>
    <section v-if="shown?.way" class="shown">
      <h2>
        {{
          shown.milled
            ? $t("{supplier}, milled for you: how much", { supplier: nameOf(shown.supplier, shown.grade) })
            : $t("{supplier}: how much", { supplier: nameOf(shown.supplier, shown.grade) })
        }}
      </h2>
      <p class="soft">
        {{ machines(shown) || $t("No machine time")
        }}{{
          shown.way.milled
            ? $t("; {milled} of the money is for milling", { milled: amount(shown.way.milled) })
            : ""
        }}.
      </p>
      <GroupAmounts
        v-for="g in shown.way.groups"
        :key="g.key"
        :group="g"
        :per-foot="shown.per_foot[g.key] ?? null"
        :chance="wish.chance ** (1 / shown.way.groups.length)"
        :whole="wish.chance"
        :system="project.system"
        :name="part"
      />
      <Variations v-if="!shown.milled && !wish.hand" :way="shown" :name="part" />
      <p class="soft">
        {{
          $t("Prices: {per_foot}.", {
            per_foot: Object.entries(shown.per_foot)
              .map(([k, p]) => `${k} ${p === null ? $t("not sold") : woodPrice(p, project!.system)}`)
              .join("; "),
          })
        }}
      </p>
    </section>
  </div>
</template>

<style scoped>
.wish {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem 1.6rem;
  align-items: end;
  margin-bottom: 1rem;
}
.intro {
  max-width: 46rem;
  margin-bottom: 0.8rem;
}
.best {
  margin: 0.8rem 0;
  font-size: 1rem;
}
.tag {
  margin-left: 0.5rem;
}
.link {
  border: 0;
  background: none;
  padding: 0;
  min-height: 44px;
  text-decoration: underline;
  font-weight: 600;
  cursor: pointer;
  text-align: left;
}
.shown {
  margin-top: 1.4rem;
}
</style>

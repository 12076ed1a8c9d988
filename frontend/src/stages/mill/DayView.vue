<script setup lang="ts">
/** The shop's days: what is set up when on each machine, what waits for what, and what can be begun now. */
import { ElButton } from "element-plus";
import { computed, ref } from "vue";
import type { Schemas, Step } from "../../api/client";
import type { Milling } from "../../api/milling";
import Fig from "../../controls/Fig.vue";
import BoardRests from "./BoardRests.vue";
import { byDay, clock, dateOf, dayName, lasting, setupState, stateOf, waitsFor, type Setup } from "./day";
import DayField from "../../controls/fields/DayField.vue";
import { t } from "../../i18n/i18n";

const props = defineProps<{ data: Milling; days?: Schemas["DaysBody"]; project: number }>();
const emit = defineEmits<{ plan: [string, Record<string, number>] }>();
const begins = ref(props.days?.begins || dateOf(new Date()));
const steps = computed(() => new Map(props.data.routes.flatMap((r) => r.steps).map((s) => [s.key, s])));
const list = computed(() => (props.days ? byDay(props.days.setups, props.days.day_minutes) : []));
const ready = computed(() => {
  const found = new Map<string, { machine: string; set_to: string; steps: Step[] }>();
  const resting = new Set(props.days?.resting.map((r) => r.board));
  for (const s of props.data.routes.filter((r) => !resting.has(r.board)).flatMap((r) => r.steps)) {
    if (!s.ready) continue;
    const at = `${s.machine} ${s.setup}`;
    if (!found.has(at)) found.set(at, { machine: s.machine, set_to: s.set_to, steps: [] });
    found.get(at)!.steps.push(s);
  }
  return [...found.values()];
});
const next = computed(() => props.days?.setups.find((s) => setupState(s, steps.value) === "ready"));
const busy = computed(() => props.days?.state === "asked");
const hours = computed(() => {
  const d = props.days;
  if (!d) return [];
  const found = [];
  for (let m = Math.ceil(d.opens / 60) * 60; m < d.opens + d.day_minutes; m += 60)
    found.push({ m, at: (m - d.opens) / d.day_minutes });
  return found;
});
const inWords = (waited: Step[]) => waited.map((w) => `${w.piece} (${w.machine})`).join(", ");
const WORD = { done: t("done"), ready: t("can be begun"), waits: t("waits"), rests: t("rests") };

function ask(on_day: Record<string, number> = {}): void {
  emit("plan", begins.value, on_day);
}
/** One setting to another day; what was fixed before stays fixed. */
function move(setup: Setup, by: number): void {
  ask({ ...props.days!.on_day, [name(setup)]: Math.max(0, setup.day + by) });
}
function name(setup: Setup): string {
  return setup.number > 1 ? `${setup.setup} ${setup.number}` : setup.setup;
}
function fixed(setup: Setup): boolean {
  return name(setup) in (props.days?.on_day ?? {});
}
function loosen(setup: Setup): void {
  ask(Object.fromEntries(Object.entries(props.days!.on_day).filter(([n]) => n !== name(setup))));
}
</script>

<template>
  <div class="day-view">
    <form class="ask" @submit.prevent="ask(days?.on_day)">
      <DayField v-model="begins" :label="$t('The first day')" />
      <ElButton class="act" :class="{ lead: !days?.setups.length }" :disabled="busy" native-type="submit">
        {{
          busy ? $t("Planning…") : days?.setups.length ? $t("Plan what is left again") : $t("Plan the days")
        }}
      </ElButton>
      <template v-if="days?.setups.length">
        <a class="act" :href="`/api/layouts/${data.layout}/settings.pdf`" download>{{
          $t("Setting sheets")
        }}</a>
        <a class="act" :href="`/api/layouts/${data.layout}/days.ics`" download>{{ $t("To a calendar") }}</a>
        <p class="soft">
          {{
            $t("Done after {minutes} of work and waiting; {proved}.", {
              minutes: lasting(days.minutes),
              proved: days.proved
                ? $t("no order of these settings is better")
                : $t("a better order is not ruled out"),
            })
          }}
        </p>
      </template>
      <p v-else class="soft">
        {{
          $t(
            "All pieces of one thickness at one planer setting, equal lengths at one stop, rests and glue through the night.",
          )
        }}
      </p>
    </form>
    <p v-if="days?.trouble" class="note" role="alert"><Fig :text="days.trouble" /></p>
    <BoardRests v-for="r in days?.resting" :key="r.board" :rests="r" :begins="days!.begins || begins" />
    <p v-if="days?.stale" class="note">
      {{ $t("Steps were done or have changed since these days were planned: plan what is left again.") }}
    </p>

    <div class="two">
      <div>
        <section v-for="d in list" :key="d.day" class="day" :aria-label="dayName(days!.begins, d.day)">
          <h2>{{ dayName(days!.begins, d.day) }}</h2>
          <div class="lanes">
            <div class="scale">
              <span v-for="h in hours" :key="h.m" :style="{ left: `${100 * h.at}%` }">{{ clock(h.m) }}</span>
            </div>
            <div v-for="lane in d.machines" :key="lane.machine" class="lane">
              <span class="who">{{ lane.machine }}</span>
              <div class="bars">
                <div
                  v-for="b in lane.bars"
                  :key="b.setup.begins"
                  class="bar"
                  :class="[setupState(b.setup, steps), { next: b.setup === next }]"
                  :style="{ left: `${100 * b.from}%`, width: `${100 * (b.to - b.from)}%` }"
                  :title="`${b.setup.machine}: ${b.setup.set_to}, ${clock(b.setup.from_clock)}`"
                ></div>
              </div>
            </div>
          </div>
          <ol class="setups">
            <li
              v-for="s in d.setups"
              :key="`${s.setup} ${s.number}`"
              :class="[setupState(s, steps), { next: s === next }]"
            >
              <span class="when">{{ clock(s.from_clock) }}</span>
              <div class="what">
                <h3>
                  {{ s.machine }}: <Fig :text="s.set_to" /><small v-if="s.number > 1">
                    {{ " " + $t("once more") }}</small
                  >
                </h3>
                <p class="pieces">
                  <span
                    v-for="k in s.steps"
                    :key="k"
                    class="piece"
                    :class="stateOf(steps.get(k))"
                    :title="steps.get(k)?.do"
                    >{{ steps.get(k)?.piece || k }}</span
                  >
                </p>
                <p v-if="waitsFor(s, steps).length" class="soft">
                  {{
                    waitsFor(s, steps).length > 3
                      ? $t("waits for {steps} and {n} more", {
                          steps: inWords(waitsFor(s, steps).slice(0, 3)),
                          n: waitsFor(s, steps).length - 3,
                        })
                      : $t("waits for {steps}", { steps: inWords(waitsFor(s, steps)) })
                  }}
                </p>
              </div>
              <span class="soft state"
                >{{ WORD[setupState(s, steps)] }}<br />{{ lasting(s.ends - s.begins)
                }}<template v-if="s.people > 1"
                  ><br />{{ $t("takes {people}", { people: s.people }) }}</template
                ></span
              >
              <span class="shift">
                <ElButton
                  class="act quiet"
                  :disabled="busy || s.day === 0"
                  :aria-label="
                    $t('A day earlier: {machine} {set_to}', { machine: s.machine, set_to: s.set_to })
                  "
                  @click="move(s, -1)"
                >
                  ‹
                </ElButton>
                <ElButton
                  class="act quiet"
                  :disabled="busy"
                  :aria-label="
                    $t('A day later: {machine} {set_to}', { machine: s.machine, set_to: s.set_to })
                  "
                  @click="move(s, 1)"
                >
                  ›
                </ElButton>
                <ElButton
                  v-if="fixed(s)"
                  class="act quiet"
                  :disabled="busy"
                  :aria-label="
                    $t('Let it move again: {machine} {set_to}', { machine: s.machine, set_to: s.set_to })
                  "
                  @click="loosen(s)"
                >
                  {{ $t("fixed ×") }}
                </ElButton>
              </span>
            </li>
          </ol>
        </section>
        <p v-if="!list.length && !busy" class="first">
          {{ $t("Nothing is planned yet. Say when you begin, then plan the days.") }}
        </p>
      </div>
      <aside class="now" :aria-label="$t('Can be begun now')">
        <h2>{{ $t("Can be begun now") }}</h2>
        <p v-if="!ready.length" class="soft">{{ $t("Nothing: what is left rests, or all is done.") }}</p>
        <div v-for="r in ready" :key="`${r.machine} ${r.set_to}`">
          <h3>
            {{ r.machine }}<small>: <Fig :text="r.set_to" /></small>
          </h3>
          <p v-for="s in r.steps.slice(0, 6)" :key="s.key" class="soft">
            <b>{{ s.piece }}</b> <Fig :text="s.do" />
          </p>
          <p v-if="r.steps.length > 6" class="soft">
            {{ $t("and {steps} more", { steps: r.steps.length - 6 }) }}
          </p>
        </div>
      </aside>
    </div>
  </div>
</template>

<style scoped>
.ask {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1rem;
  align-items: end;
  margin-bottom: 1.2rem;
}
.ask .field {
  width: 11rem;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 17rem;
  gap: 2rem;
}
.day {
  margin-bottom: 2.2rem;
}
.lanes {
  margin: 0.7rem 0 0.9rem;
}
.scale {
  position: relative;
  height: 1.3rem;
  margin-left: 7.5rem;
  border-bottom: 3px solid var(--tape);
  font-size: 0.78rem;
}
.scale span {
  position: absolute;
  padding-left: 0.25rem;
  border-left: 2px solid var(--ink);
  line-height: 1.2;
}
.lane {
  display: grid;
  grid-template-columns: 7.5rem 1fr;
  align-items: center;
}
.who {
  font-size: 0.85rem;
  font-weight: 600;
}
.bars {
  position: relative;
  height: 1.5rem;
  border-bottom: 1px solid var(--ink-faint);
}
.bar {
  position: absolute;
  top: 0.25rem;
  height: 1rem;
  min-width: 3px;
  border: 1.5px solid var(--ink);
  background: var(--paper);
}
.bar.done {
  background: var(--ink-faint);
}
.bar.rests {
  border-style: dashed;
}
.bar.next {
  background: var(--crayon);
  border-color: var(--crayon);
}
.setups {
  list-style: none;
  margin: 0;
  padding: 0;
}
.setups li {
  display: grid;
  grid-template-columns: 3.6rem minmax(0, 1fr) 6.5rem auto;
  gap: 0.8rem;
  padding: 0.5rem 0;
  border-top: 1px solid var(--ink-faint);
  align-items: start;
}
.setups li.next {
  box-shadow: inset 8px 0 0 var(--crayon);
  padding-left: 1rem;
}
.setups li.done h3 {
  text-decoration: line-through;
  color: var(--ink-soft);
}
.when {
  font-weight: 700;
}
.state {
  font-size: 0.85rem;
  text-align: right;
}
.pieces {
  display: flex;
  flex-wrap: wrap;
  gap: 0.25rem 0.5rem;
  margin-top: 0.2rem;
}
.piece {
  font-size: 0.88rem;
}
.piece.ready {
  font-weight: 720;
  border-bottom: 3px solid var(--crayon);
}
.piece.done {
  text-decoration: line-through;
  color: var(--ink-soft);
}
.piece.waits,
.piece.rests {
  color: var(--ink-soft);
}
.shift {
  display: flex;
}
.shift .act {
  min-height: 44px;
  min-width: 44px;
}
.now {
  align-self: start;
  border-left: 6px solid var(--tape);
  padding-left: 1rem;
  display: flex;
  flex-direction: column;
  gap: 0.9rem;
}
.now h3 {
  margin-bottom: 0.2rem;
}
.first {
  font-size: 1.15rem;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  .now {
    grid-row: 1;
  }
  .setups li {
    grid-template-columns: 3.2rem minmax(0, 1fr);
  }
  .state {
    grid-column: 2;
    text-align: left;
  }
  .state br {
    display: none;
  }
  .shift {
    grid-column: 2;
  }
  .scale,
  .lane {
    font-size: 0.7rem;
  }
}
@media (max-width: 640px) {
  .lane {
    grid-template-columns: 5.2rem 1fr;
  }
  .scale {
    margin-left: 5.2rem;
  }
  .scale span:nth-child(even) {
    display: none;
  }
}
.day-view > .note {
  margin-bottom: 0.6rem;
}
</style>

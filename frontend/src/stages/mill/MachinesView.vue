<script setup lang="ts">
/** The workshop's machines with their limits, its hours and its waits: entered once, for all its projects. */
import { computed } from "vue";
import { ElCheckbox, ElInputNumber, ElOption, ElSelect, ElSwitch } from "element-plus";
import type { Schemas } from "../../api/client";
import type { Method, Settings } from "../../api/milling";
import type { Shared } from "../../api/workshop";
import MeasureField from "../../controls/MeasureField.vue";
import type { System } from "../../measure";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import CountField from "../../controls/fields/CountField.vue";
import ClockField from "../../controls/fields/ClockField.vue";
import { t } from "../../i18n/i18n";

const props = defineProps<{
  settings: Shared;
  system: System;
  /** Makes a change to whatever stands when its turn comes. */
  change: (make: (now: Shared) => Shared) => Promise<void>;
}>();
type Machines = Settings["machines"];
type Kind = "jointer" | "planer" | "table_saw" | "bandsaw" | "crosscut";
const MACHINES: { kind: Kind; word: string; sizes: [string, string][] }[] = [
  {
    kind: "jointer",
    word: t("Jointer"),
    sizes: [
      ["bed_width", t("Bed width")],
      ["shortest", t("Shortest piece")],
      ["longest", t("Longest edge it holds straight")],
      ["thinnest", t("Thinnest")],
      ["narrowest", t("Narrowest")],
      ["usual_pass", t("Usual pass")],
    ],
  },
  {
    kind: "planer",
    word: t("Thickness planer"),
    sizes: [
      ["width", t("Width")],
      ["shortest", t("Shortest piece")],
      ["thinnest", t("Thinnest")],
      ["usual_pass", t("Usual pass")],
      ["last_pass", t("Light last pass")],
    ],
  },
  {
    kind: "table_saw",
    word: t("Table saw"),
    sizes: [
      ["tallest", t("Height of cut")],
      ["fence", t("Fence goes out to")],
      ["narrowest", t("Narrowest rip")],
    ],
  },
  { kind: "bandsaw", word: t("Bandsaw"), sizes: [["tallest", t("Height under the guide")]] },
  { kind: "crosscut", word: t("Crosscut saw"), sizes: [["widest", t("Width of cut")]] },
];
type Switched = NonNullable<Schemas["Machines"]["off"]>[number];
const NAMES: Record<Kind, Switched> = {
  jointer: "jointer",
  planer: "planer",
  table_saw: "table saw",
  bandsaw: "bandsaw",
  crosscut: "crosscut saw",
};
/** What a shop may do another way than by its usual machine, and the ways. */
const TASKS: { task: string; word: string; ways: [Method, string][] }[] = [
  {
    task: "face",
    word: t("A face is made flat"),
    ways: [
      ["carrier", t("on a carrier through the planer")],
      ["hand", t("by hand plane")],
      ["bridge", t("under a router bridge")],
    ],
  },
  {
    task: "edge",
    word: t("An edge is made straight"),
    ways: [
      ["hand", t("by hand plane")],
      ["straight-carrier", t("against a straight carrier at the table saw")],
    ],
  },
  { task: "thickness", word: t("A piece is made even"), ways: [["hand", t("by hand plane")]] },
  {
    task: "crosscut",
    word: t("A piece is cut across"),
    ways: [
      ["sled", t("on a sled at the table saw")],
      ["hand", t("by handsaw")],
    ],
  },
  {
    task: "rip",
    word: t("A piece is ripped"),
    ways: [
      ["line", t("at the bandsaw")],
      ["hand", t("by handsaw")],
    ],
  },
];
const machines = computed(() => props.settings.machines as Required<Machines>);

function set(kind: Kind, values: Record<string, unknown>): void {
  void props.change((now) => ({
    ...now,
    machines: { ...now.machines, [kind]: { ...now.machines[kind], ...values } } as Machines,
  }));
}
function shop(values: Partial<Machines>): void {
  void props.change((now) => ({ ...now, machines: { ...now.machines, ...values } as Machines }));
}
/** In the shop, or not. */
function turn(name: Switched, on: boolean): void {
  const others = machines.value.off.filter((m) => m !== name);
  shop({ off: on ? others : [...others, name] });
}
function prefer(task: string, method: Method | ""): void {
  const kept: Record<string, Method> = { ...(machines.value.preferred as Record<string, Method>) };
  if (method) kept[task] = method;
  else delete kept[task];
  shop({ preferred: kept as Machines["preferred"] });
}
const preferred = (task: string): Method | "" =>
  (machines.value.preferred as Record<string, Method>)[task] ?? "";
function hours(values: Partial<Settings["hours"]>): void {
  void props.change((now) => ({ ...now, hours: { ...now.hours, ...values } as Settings["hours"] }));
}
function waits(values: Partial<Settings["waits"]>): void {
  void props.change((now) => ({ ...now, waits: { ...now.waits, ...values } as Settings["waits"] }));
}
const size = (kind: Kind, name: string): number =>
  (machines.value[kind] as unknown as Record<string, number>)[name]!;
/** How a machine shows its setting; saws have none that is turned. */
const dialOf = (kind: Kind): Machines["planer"]["dial"] | undefined =>
  "dial" in machines.value[kind] ? (machines.value[kind] as Machines["planer"]).dial : undefined;
const DIALS = [
  ["scale", t("on a scale")],
  ["wheel", t("by turns of a wheel")],
  ["readout", t("on a readout")],
] as const;
</script>

<template>
  <div class="machines">
    <p class="soft">
      {{
        $t(
          "Usual starting values: check your manuals. What a machine cannot take is never written for it; the step goes another way and says so.",
        )
      }}
    </p>
    <fieldset v-for="m in MACHINES" :key="m.kind" :class="{ off: machines.off.includes(NAMES[m.kind]) }">
      <legend>{{ m.word }}</legend>
      <label class="tick"
        ><ElSwitch
          :model-value="!machines.off.includes(NAMES[m.kind])"
          :aria-label="$t('{word} in this shop', { word: m.word })"
          @change="turn(NAMES[m.kind], !!$event)"
        />
        {{ $t("in this shop") }}</label
      >
      <MeasureField
        v-for="[name, word] in m.sizes"
        :key="name"
        :label="word"
        :system="system"
        :model-value="size(m.kind, name)"
        @update:model-value="set(m.kind, { [name]: $event })"
      />
      <template v-if="dialOf(m.kind)">
        <ChoiceField
          :label="$t('Its setting is shown')"
          :options="DIALS"
          :model-value="dialOf(m.kind)!.kind"
          @update:model-value="
            set(m.kind, { dial: { kind: $event, per_turn: dialOf(m.kind)!.per_turn || 508 } })
          "
        />
        <MeasureField
          v-if="dialOf(m.kind)!.kind === 'wheel'"
          :label="$t('One turn of the wheel moves')"
          :system="system"
          :model-value="dialOf(m.kind)!.per_turn"
          @update:model-value="set(m.kind, { dial: { kind: 'wheel', per_turn: $event } })"
        />
      </template>
      <CountField
        :label="$t('Minutes to set it')"
        :min="0"
        :step="0.5"
        :model-value="machines[m.kind].pace.setup"
        @update:model-value="set(m.kind, { pace: { ...machines[m.kind].pace, setup: $event } })"
      />
    </fieldset>
    <fieldset>
      <legend>{{ $t("Other means") }}</legend>
      <ElCheckbox :model-value="machines.carrier" @change="shop({ carrier: !!$event })">{{
        $t("flat carriers for planer and saw")
      }}</ElCheckbox>
      <ElCheckbox :model-value="machines.by_hand" @change="shop({ by_hand: !!$event })">{{
        $t("hand planes and winding sticks")
      }}</ElCheckbox>
      <MeasureField
        :label="$t('Router bridge takes (0: none)')"
        :system="system"
        :model-value="machines.router_bridge"
        @update:model-value="shop({ router_bridge: $event })"
      />
      <label class="field"
        ><span>{{ $t("A shop with wider machines") }}</span
        ><input
          class="line-input"
          maxlength="80"
          :value="machines.outside"
          @change="shop({ outside: ($event.target as HTMLInputElement).value.trim() })"
      /></label>
      <CountField
        :label="$t('One lifts alone, kg')"
        :min="1"
        :model-value="machines.lift_alone_kg"
        @update:model-value="shop({ lift_alone_kg: $event })"
      />
    </fieldset>
    <fieldset>
      <legend>{{ $t("Where there is a choice") }}</legend>
      <label v-for="one in TASKS" :key="one.task" class="field"
        ><span>{{ one.word }}</span>
        <ElSelect
          :model-value="preferred(one.task)"
          :aria-label="one.word"
          @change="prefer(one.task, $event)"
        >
          <ElOption value="" :label="$t('by its usual machine')" />
          <ElOption v-for="[method, word] in one.ways" :key="method" :value="method" :label="word" />
        </ElSelect>
      </label>
      <label class="field"
        ><span>{{ $t("Clean enough for the planer, % of a face") }}</span>
        <ElInputNumber
          :model-value="Math.round(settings.enough * 100)"
          :min="40"
          :max="100"
          :step="5"
          @change="change((now) => ({ ...now, enough: ($event ?? 80) / 100 }))"
        />
      </label>
    </fieldset>
    <slot />
    <fieldset>
      <legend>{{ $t("Hours and room") }}</legend>
      <ClockField
        :label="$t('Work begins')"
        :model-value="settings.hours.begins"
        @update:model-value="hours({ begins: $event })"
      />
      <ClockField
        :label="$t('Work ends')"
        :model-value="settings.hours.ends"
        @update:model-value="hours({ ends: $event })"
      />
      <CountField
        :label="$t('People at work')"
        :min="1"
        :max="12"
        :model-value="settings.hours.people"
        @update:model-value="hours({ people: $event })"
      />
      <CountField
        :label="$t('Floor for stickers, square feet')"
        :min="1"
        :model-value="settings.hours.floor"
        @update:model-value="hours({ floor: $event })"
      />
    </fieldset>
    <fieldset>
      <legend>{{ $t("Waits") }}</legend>
      <CountField
        :label="$t('Glue in clamps, minutes')"
        :min="0"
        :model-value="settings.waits.clamped"
        @update:model-value="waits({ clamped: $event })"
      />
      <CountField
        :label="$t('Before a glued panel is machined, hours')"
        :min="0"
        :model-value="settings.waits.glue / 60"
        @update:model-value="waits({ glue: Math.round($event * 60) })"
      />
      <CountField
        :label="$t('After resawing, hours')"
        :min="0"
        :model-value="settings.waits.resawn / 60"
        @update:model-value="waits({ resawn: Math.round($event * 60) })"
      />
      <CountField
        :label="$t('Between two visits, days')"
        :min="0"
        :model-value="settings.waits.rested / 1440"
        @update:model-value="waits({ rested: Math.round($event * 1440) })"
      />
      <MeasureField
        :label="$t('The first of two visits leaves over')"
        :system="system"
        :model-value="settings.over"
        @update:model-value="change((now) => ({ ...now, over: $event }))"
      />
    </fieldset>
  </div>
</template>

<style scoped>
.machines {
  display: flex;
  flex-direction: column;
  gap: 1.2rem;
}
fieldset {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(12rem, 1fr));
  gap: 0.8rem 1.2rem;
  align-items: end;
  margin: 0;
  padding: 0.8rem 0 0;
  border: 0;
  border-top: 2px solid var(--ink);
}
legend {
  padding-right: 0.8rem;
  font-weight: 720;
  font-size: 1.1rem;
}
.off > :not(legend, .tick) {
  opacity: 0.45;
}
.tick {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
  min-height: 44px;
}
</style>

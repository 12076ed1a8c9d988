<script setup lang="ts">
/**
 * Grain, rings and figure; what the yard has dressed; what it was sold as; whether it was searched
 * for metal.
 */
import { computed } from "vue";
import type { Board, Grain } from "../../api/client";
import MeasureField from "../../controls/MeasureField.vue";
import type { System } from "../../measure";
import { FIGURES } from "../../board/figures";

const props = defineProps<{ board: Board; system: System; sawn: string; feed: string[] }>();
const emit = defineEmits<{ put: [string, Partial<Board>] }>();
const grain = computed(() => props.board.grain);
const SLOPES: [number | null, string][] = [
  [null, "not looked at"],
  [0, "straight"],
  [0.02, "climbs a little"],
  [0.06, "climbs"],
  [0.15, "climbs steeply"],
  [-0.02, "falls a little"],
  [-0.06, "falls"],
  [-0.15, "falls steeply"],
];
const EDGES = [
  ["datum_edge", "Fibres on the datum edge"],
  ["far_edge", "Fibres on the far edge"],
] as const;
const SIDES = [
  ["A", "face A"],
  ["B", "face B"],
  ["datum-edge", "datum edge"],
  ["far-edge", "far edge"],
] as const;
const mark = computed(() => {
  const d = props.board.dressed;
  const faces = d.filter((s) => s === "A" || s === "B").length;
  const edges = d.length - faces;
  return faces + edges === 4
    ? "S4S"
    : (faces ? `S${faces}S` : "") + (edges ? `${edges}E`.replace(/^/, faces ? "" : "S") : "") || "rough";
});
function put(values: Partial<Grain>): void {
  emit("put", "grain", { grain: { ...grain.value, ...values } });
}
function slope(edge: "datum_edge" | "far_edge", text: string): void {
  put({ [edge]: text === "" ? null : Number(text) });
}
/** A slope that is not among the words keeps its figure. */
function choices(value: number | null): [number | null, string][] {
  return SLOPES.some(([s]) => s === value) ? SLOPES : [...SLOPES, [value, `${value} in 1`]];
}
function rings(event: Event): void {
  const text = (event.target as HTMLInputElement).value.trim();
  const value = Math.round(Number(text));
  put({ rings: text === "" || !(value >= 0 && value <= 90) ? null : value });
}
function dress(side: (typeof SIDES)[number][0], on: boolean): void {
  emit("put", "dressed sides", {
    dressed: SIDES.map(([s]) => s).filter((s) => (s === side ? on : props.board.dressed.includes(s))),
  });
}
function zone(k: number, values: Partial<Grain["zones"][number]>): void {
  put({ zones: grain.value.zones.map((z, n) => (n === k ? { ...z, ...values } : z)) });
}
</script>

<template>
  <div class="grain">
    <div class="fields">
      <label v-for="[edge, says] in EDGES" :key="edge" class="field"
        ><span>{{ says }}, toward face A</span>
        <select
          class="line-input"
          :value="grain[edge] ?? ''"
          @change="slope(edge, ($event.target as HTMLSelectElement).value)"
        >
          <option v-for="[s, w] in choices(grain[edge])" :key="w" :value="s ?? ''">{{ w }}</option>
        </select>
      </label>
      <label class="field"
        ><span>Rings to the face at its end, degrees</span
        ><input
          class="line-input"
          inputmode="numeric"
          placeholder="0 flat … 90 quarter"
          :value="grain.rings ?? ''"
          @change="rings"
      /></label>
      <label class="field"
        ><span>Heart side</span
        ><select
          class="line-input"
          :value="grain.heart"
          @change="put({ heart: ($event.target as HTMLSelectElement).value as Grain['heart'] })"
        >
          <option value="">not looked at</option>
          <option value="A">face A</option>
          <option value="B">face B</option>
        </select></label
      >
      <label class="field"
        ><span>Sold as</span
        ><select
          class="line-input"
          :value="board.grade"
          @change="emit('put', 'grade', { grade: ($event.target as HTMLSelectElement).value })"
        >
          <option value="">no grade</option>
          <option
            v-for="g in ['FAS', 'FAS one face', 'Selects', 'No. 1 Common', 'No. 2A Common', 'No. 3A Common']"
            :key="g"
          >
            {{ g }}
          </option>
        </select></label
      >
    </div>
    <p v-if="sawn || feed.length" class="told">
      <template v-if="sawn"
        >By its rings it is <b>{{ sawn }}</b>. </template
      ><template v-for="f in feed" :key="f">{{ f }} </template>
    </p>
    <p class="ticks" role="group" aria-label="Dressed sides">
      <span class="soft">Dressed by the yard ({{ mark }}):</span>
      <label v-for="[s, w] in SIDES" :key="s" class="tick"
        ><input
          type="checkbox"
          :checked="board.dressed.includes(s)"
          @change="dress(s, ($event.target as HTMLInputElement).checked)"
        />
        {{ w }}</label
      >
      <label class="tick"
        ><input
          type="checkbox"
          :checked="board.searched"
          @change="
            emit('put', 'a search for metal', { searched: ($event.target as HTMLInputElement).checked })
          "
        />
        searched for metal</label
      >
    </p>
    <div v-for="(z, k) in grain.zones" :key="k" class="zone">
      <label class="field"
        ><span>Figure</span
        ><select
          class="line-input"
          :value="z.figure"
          @change="
            zone(k, { figure: ($event.target as HTMLSelectElement).value as (typeof FIGURES)[number] })
          "
        >
          <option v-for="f in FIGURES" :key="f">{{ f }}</option>
        </select></label
      >
      <MeasureField
        label="Figure from"
        :system="system"
        :model-value="z.x0"
        @update:model-value="zone(k, { x0: $event })"
      />
      <MeasureField
        label="to"
        :system="system"
        :model-value="z.x1"
        @update:model-value="zone(k, { x1: $event })"
      />
      <MeasureField
        label="up from"
        :system="system"
        signed
        :model-value="z.y0"
        @update:model-value="zone(k, { y0: $event })"
      />
      <MeasureField
        label="to "
        :system="system"
        :model-value="z.y1"
        @update:model-value="zone(k, { y1: $event })"
      />
      <button
        class="act"
        :aria-label="`Remove the ${z.figure} figure`"
        @click="put({ zones: grain.zones.filter((_, n) => n !== k) })"
      >
        ×
      </button>
    </div>
  </div>
</template>

<style scoped>
.grain {
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(11rem, 1fr));
  gap: 0.9rem 1.1rem;
  align-items: end;
}
.ticks {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.2rem;
  align-items: center;
}
.tick {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
  min-height: 44px;
}
.tick input {
  width: 18px;
  height: 18px;
  accent-color: var(--chalk);
}
.told {
  font-weight: 560;
}
.zone {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(7rem, 1fr));
  gap: 0.8rem;
  align-items: end;
}
.zone .act {
  width: 48px;
}
</style>

<script setup lang="ts">
/** Where the wood went: a picture and a table, closing to the rough volume. */
import { useQuery } from "@tanstack/vue-query";
import { computed } from "vue";
import { api } from "../../api/client";
import { nothingFromBoards } from "../../api/parts";
import { useMaterials } from "../../api/materials";
import { useProject } from "../../api/project";
import NotFromBoards from "../../controls/NotFromBoards.vue";
import { perUnit, wood, woodFigure, woodUnit, woodUnitName } from "../../wood";
import UnplacedNote from "../../controls/UnplacedNote.vue";
import { money } from "../../money";

const { pk, project } = useProject();
const { materials, cost: besides } = useMaterials(pk);
const { data, error } = useQuery({
  queryKey: computed(() => ["account", pk.value]),
  queryFn: async () =>
    (await api.GET("/api/projects/{project}/account", { params: { path: { project: pk.value } } })).data!,
});
/** Parts and offcuts are wood kept; the rest is told apart by pattern, since colour alone says nothing. */
const KEPT = ["parts", "offcuts kept"];
const shown = computed(
  () => data.value?.categories.filter((c) => (data.value?.where[c] ?? 0) > 0.0005 || KEPT.includes(c)) ?? [],
);
const most = computed(() => Math.max(1, ...(data.value?.boards.map((b) => b.rough) ?? [])));
const sum = computed(() => Object.values(data.value?.where ?? {}).reduce((a, b) => a + b, 0));
/** What machine took the chips, where it took any. */
const taken = computed(() => Object.entries(data.value?.chips ?? {}).filter(([, feet]) => feet > 0.0005));
/** Of the boards that have been cut into: what was planned for them, and what has come of it so far. */
const real = computed(() => {
  const far = data.value?.so_far;
  if (!far) return [];
  return data
    .value!.categories.map((name) => ({ name, planned: far.planned[name]!, so_far: far.where[name]! }))
    .filter((r) => r.planned > 0.0005 || r.so_far > 0.0005);
});
const worked = computed(() => data.value?.so_far?.labour.filter((l) => l.planned > 0) ?? []);
const slug = (c: string) => c.replaceAll(" ", "-");
</script>

<template>
  <section v-if="project" class="stage">
    <div class="stage-head">
      <h1>Books</h1>
      <div v-if="data" class="figures grow">
        <div>
          <span class="figure">{{ (data.share * 100).toFixed(1) }} %</span
          ><span class="label">of the rough wood becomes parts</span>
        </div>
        <div>
          <span class="figure">{{ woodFigure(data.rough, project.system, 2) }}</span><span class="label"
            >{{ woodUnit(project.system) }} cut</span
          >
        </div>
        <div>
          <span class="figure">{{ money(data.price) }}</span><span class="label">paid for them</span>
        </div>
        <div v-if="data.per_foot_bought">
          <span class="figure">{{ perUnit(data.per_foot_bought, project.system) }}</span><span class="label"
            >a {{ woodUnitName(project.system) }} bought</span
          >
        </div>
        <div v-if="data.per_foot_of_parts">
          <span class="figure">{{ perUnit(data.per_foot_of_parts, project.system) }}</span><span class="label"
            >a {{ woodUnitName(project.system) }} of parts</span
          >
        </div>
      </div>
    </div>
    <NotFromBoards v-if="!data && nothingFromBoards(project.parts)" />
    <p v-else-if="error" class="first">
      {{ error.message }}.
      <RouterLink :to="{ name: 'layout', params: { project: pk } }">Go to Lay out.</RouterLink>
    </p>
    <UnplacedNote />
    <p v-if="data?.stale" class="note">
      Parts, boards or the shop have changed since this plan was made: this is the account of the plan as it
      was.
    </p>
    <template v-if="data">
      <ul class="legend">
        <li v-for="c in shown" :key="c">
          <span class="swatch" :class="slug(c)" />{{ c
          }}<span class="soft">{{ ((data.where[c]! / data.rough) * 100).toFixed(1) }} %</span>
        </li>
      </ul>
      <div class="stack" role="img" :aria-label="`Where the wood of ${data.boards.length} boards went`">
        <div v-for="b in data.boards" :key="b.board" class="row">
          <b>{{ b.board }}</b>
          <div class="bar" :style="{ width: `${(b.rough / most) * 100}%` }">
            <span
              v-for="c in shown"
              :key="c"
              :class="slug(c)"
              :style="{ width: `${(b.where[c]! / b.rough) * 100}%` }"
              :title="`${c}: ${wood(b.where[c]!, project.system, 2)}`"
            />
          </div>
        </div>
      </div>
      <div class="scroll" tabindex="0" role="region" aria-label="Where the wood of every board goes">
        <table class="ruled">
          <thead>
            <tr>
              <th>Board</th>
              <th>Wood</th>
              <th v-for="c in shown" :key="c" class="num">{{ c }}</th>
              <th class="num">rough, {{ woodUnit(project.system) }}</th>
              <th class="num">yield</th>
              <th class="num">price</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="b in data.boards" :key="b.board">
              <td>
                <b>{{ b.board }}</b>
              </td>
              <td>{{ b.species }}</td>
              <td v-for="c in shown" :key="c" class="num">
                {{ woodFigure(b.where[c]!, project.system, 2) }}
              </td>
              <td class="num">
                <b>{{ woodFigure(b.rough, project.system, 2) }}</b>
              </td>
              <td class="num">{{ (b.share * 100).toFixed(0) }} %</td>
              <td class="num">{{ b.price ? money(b.price) : "owned" }}</td>
            </tr>
          </tbody>
          <tfoot>
            <tr>
              <td colspan="2"><b>Together</b></td>
              <td v-for="c in shown" :key="c" class="num">
                <b>{{ woodFigure(data.where[c]!, project.system, 2) }}</b>
              </td>
              <td class="num">
                <b>{{ woodFigure(data.rough, project.system, 2) }}</b>
              </td>
              <td class="num">
                <b>{{ (data.share * 100).toFixed(0) }} %</b>
              </td>
              <td class="num">
                <b>{{ money(data.price) }}</b>
              </td>
            </tr>
          </tfoot>
        </table>
      </div>
      <section v-if="taken.length" class="taken" aria-label="Chips by operation">
        <h2>What became chips</h2>
        <dl>
          <div v-for="[operation, feet] in taken" :key="operation">
            <dt>{{ operation }}</dt>
            <dd class="figure">{{ woodFigure(feet, project.system, 2) }}</dd>
            <dd class="label">
              {{ woodUnit(project.system) }}, {{ ((feet / data.where.chips!) * 100).toFixed(0) }} % of the
              chips
            </dd>
          </div>
        </dl>
      </section>
      <section class="parts-cost" aria-label="What each part costs">
        <h2>What each part costs in wood</h2>
        <table class="ruled">
          <thead>
            <tr>
              <th>Part</th>
              <th class="num">pieces</th>
              <th class="num">finished, {{ woodUnit(project.system) }}</th>
              <th class="num">cost</th>
              <th class="num">a piece</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="c in data.parts" :key="c.part">
              <td>
                <b>{{ c.name }}</b>
              </td>
              <td class="num">{{ c.pieces }}</td>
              <td class="num">{{ woodFigure(c.feet, project.system) }}</td>
              <td class="num">{{ money(c.cost) }}</td>
              <td class="num">{{ money(c.cost / c.pieces) }}</td>
            </tr>
          </tbody>
        </table>
        <p class="soft">
          A finished part carries the waste of its boards. Offcuts kept carry
          {{ money(data.kept_worth) }} as rough wood<template v-if="data.for_nothing"
            >; boards that give no part cost {{ money(data.for_nothing) }}</template
          >. Together this is the {{ money(data.price) }} paid.
        </p>
        <p class="piece" data-piece>
          The piece: wood {{ money(data.price - data.kept_worth)
          }}<template v-if="materials?.length"
            >, and besides boards {{ money(besides) }} for {{ materials.length }}
            {{ materials.length === 1 ? "line" : "lines" }}</template
          >: <b>{{ money(data.price - data.kept_worth + besides) }}</b>.
          <RouterLink :to="{ name: 'buy', params: { project: pk }, query: { view: 'besides' } }">{{
            materials?.length ? "See the lines" : "Hardware, glue, finish"
          }}</RouterLink>
        </p>
      </section>
      <p class="soft closes" data-closes>
        The categories add up to {{ wood(sum, project.system, 4) }} of
        {{ woodFigure(data.rough, project.system, 4) }} rough: the account closes. This is what the plan
        expects.
      </p>
      <section v-if="data.so_far" class="far" aria-labelledby="so-far">
        <h2 id="so-far">As it has really gone so far</h2>
        <p class="soft">
          {{ data.so_far.boards.join(", ") }}: {{ wood(data.so_far.rough, project.system, 2) }} cut into. What
          is in work becomes something else yet.
        </p>
        <div class="beside">
          <table class="ruled">
            <thead>
              <tr>
                <th>Where the wood went, {{ woodUnit(project.system) }}</th>
                <th class="num">planned</th>
                <th class="num">so far</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="r in real" :key="r.name">
                <td><span class="swatch" :class="slug(r.name)" /> {{ r.name }}</td>
                <td class="num">{{ woodFigure(r.planned, project.system, 2) }}</td>
                <td class="num">
                  <b>{{ woodFigure(r.so_far, project.system, 2) }}</b>
                </td>
              </tr>
            </tbody>
          </table>
          <table class="ruled">
            <thead>
              <tr>
                <th>Minutes at the machines</th>
                <th class="num">all of it</th>
                <th class="num">foretold for what is done</th>
                <th class="num">taken for it</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="l in worked" :key="l.machine">
                <td>{{ l.machine }}</td>
                <td class="num">{{ l.planned.toFixed(0) }}</td>
                <td class="num">{{ l.foretold ? l.foretold.toFixed(0) : "–" }}</td>
                <td class="num">
                  <b>{{ l.taken ? l.taken.toFixed(0) : "–" }}</b>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>
    </template>
  </section>
</template>

<style scoped>
.first {
  font-size: 1.15rem;
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.4rem;
  list-style: none;
  padding: 0;
  margin: 0 0 1rem;
}
.legend li {
  display: flex;
  align-items: center;
  gap: 0.45rem;
}
.swatch {
  width: 26px;
  height: 18px;
  border: 1px solid var(--ink);
}
.stack {
  display: flex;
  flex-direction: column;
  gap: 5px;
  margin-bottom: 1.8rem;
}
.row {
  display: grid;
  grid-template-columns: 3.4rem 1fr;
  align-items: center;
}
.bar {
  display: flex;
  height: 32px;
  border: 1.5px solid var(--ink);
}
.bar span {
  height: 100%;
  border-right: 1px solid var(--ink);
}
.bar span:last-child {
  border-right: 0;
}
.parts {
  background: var(--oak);
}
.offcuts-kept {
  background: repeating-linear-gradient(90deg, var(--oak) 0 9px, var(--ash) 9px 12px);
}
.end-trim {
  background: repeating-linear-gradient(90deg, var(--paper) 0 5px, var(--steel) 5px 7px);
}
.defects {
  background: repeating-linear-gradient(45deg, var(--bark) 0 4px, var(--oak-dark) 4px 8px);
}
.crosscut-kerf,
.rip-kerf,
.resaw-kerf {
  background: var(--crayon);
}
.rip-kerf {
  background: repeating-linear-gradient(0deg, var(--crayon) 0 4px, var(--paper) 4px 6px);
}
.resaw-kerf {
  background: repeating-linear-gradient(45deg, var(--crayon) 0 4px, var(--paper) 4px 6px);
}
.chips {
  background: repeating-linear-gradient(135deg, var(--paper) 0 5px, var(--ink-faint) 5px 8px);
}
.edge-waste {
  background: repeating-linear-gradient(0deg, var(--paper) 0 5px, var(--steel) 5px 7px);
}
.lost-to-error {
  background: var(--ink);
}
.in-work {
  background: var(--chalk-wash);
}
.far {
  margin-top: 2rem;
}
.beside {
  display: flex;
  flex-wrap: wrap;
  gap: 1.4rem 3rem;
  align-items: flex-start;
}
.beside table {
  flex: 1 1 24rem;
  width: auto;
}
.beside .swatch {
  display: inline-block;
  vertical-align: -3px;
}
.scroll {
  overflow-x: auto;
}
.taken {
  margin-top: 1.6rem;
}
.taken dl {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 2.6rem;
  margin: 0.6rem 0 0;
}
.taken dt {
  font-weight: 620;
}
.taken dd {
  margin: 0;
}
.parts-cost {
  margin-top: 1.6rem;
}
.parts-cost table {
  max-width: 46rem;
}
.closes {
  margin-top: 0.8rem;
}
</style>

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
      <h1>{{ $t("Books") }}</h1>
      <div v-if="data" class="figures grow">
        <div>
          <span class="figure">{{ (data.share * 100).toFixed(1) }} %</span
          ><span class="label">{{ $t("of the rough wood becomes parts") }}</span>
        </div>
        <div>
          <span class="figure">{{ woodFigure(data.rough, project.system, 2) }}</span><span class="label">{{
            $t("{system} cut", { system: woodUnit(project.system) })
          }}</span>
        </div>
        <div>
          <span class="figure">{{ money(data.price) }}</span><span class="label">{{
            $t("paid for them")
          }}</span>
        </div>
        <div v-if="data.per_foot_bought">
          <span class="figure">{{ perUnit(data.per_foot_bought, project.system) }}</span><span
            class="label"
            >{{ $t("a {system} bought", { system: woodUnitName(project.system) }) }}</span
          >
        </div>
        <div v-if="data.per_foot_of_parts">
          <span class="figure">{{ perUnit(data.per_foot_of_parts, project.system) }}</span><span
            class="label"
            >{{ $t("a {system} of parts", { system: woodUnitName(project.system) }) }}</span
          >
        </div>
      </div>
    </div>
    <NotFromBoards v-if="!data && nothingFromBoards(project.parts)" />
    <p v-else-if="error" class="first">
      {{ error.message }}.
      <RouterLink :to="{ name: 'layout', params: { project: pk } }">{{ $t("Go to Lay out.") }}</RouterLink>
    </p>
    <UnplacedNote />
    <p v-if="data?.stale" class="note">
      {{
        $t(
          "Parts, boards or the shop have changed since this plan was made: this is the account of the plan as it was.",
        )
      }}
    </p>
    <template v-if="data">
      <ul class="legend">
        <li v-for="c in shown" :key="c">
          <span class="swatch" :class="slug(c)" />{{ c
          }}<span class="soft">{{ ((data.where[c]! / data.rough) * 100).toFixed(1) }} %</span>
        </li>
      </ul>
      <div
        class="stack"
        role="img"
        :aria-label="$t('Where the wood of {boards} boards went', { boards: data.boards.length })"
      >
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
      <div class="scroll" tabindex="0" role="region" :aria-label="$t('Where the wood of every board goes')">
        <table class="ruled">
          <thead>
            <tr>
              <th>{{ $t("Board") }}</th>
              <th>{{ $t("Wood") }}</th>
              <th v-for="c in shown" :key="c" class="num">{{ c }}</th>
              <th class="num">{{ $t("rough, {system}", { system: woodUnit(project.system) }) }}</th>
              <th class="num">{{ $t("yield") }}</th>
              <th class="num">{{ $t("price") }}</th>
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
              <td class="num">{{ b.price ? money(b.price) : $t("owned") }}</td>
            </tr>
          </tbody>
          <tfoot>
            <tr>
              <td colspan="2">
                <b>{{ $t("Together") }}</b>
              </td>
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
      <section v-if="taken.length" class="taken" :aria-label="$t('Chips by operation')">
        <h2>{{ $t("What became chips") }}</h2>
        <dl>
          <div v-for="[operation, feet] in taken" :key="operation">
            <dt>{{ operation }}</dt>
            <dd class="figure">{{ woodFigure(feet, project.system, 2) }}</dd>
            <dd class="label">
              {{
                $t("{system}, {feet} % of the chips", {
                  system: woodUnit(project.system),
                  feet: ((feet / data.where.chips!) * 100).toFixed(0),
                })
              }}
            </dd>
          </div>
        </dl>
      </section>
      <section class="parts-cost" :aria-label="$t('What each part costs')">
        <h2>{{ $t("What each part costs in wood") }}</h2>
        <table class="ruled">
          <thead>
            <tr>
              <th>{{ $t("Part") }}</th>
              <th class="num">{{ $t("pieces") }}</th>
              <th class="num">{{ $t("finished, {system}", { system: woodUnit(project.system) }) }}</th>
              <th class="num">{{ $t("cost") }}</th>
              <th class="num">{{ $t("a piece") }}</th>
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
          {{
            $t(
              "A finished part carries the waste of its boards. Offcuts kept carry {kept_worth} as rough wood",
              { kept_worth: money(data.kept_worth) },
            )
          }}<template v-if="data.for_nothing">{{
            $t("; boards that give no part cost {for_nothing}", { for_nothing: money(data.for_nothing) })
          }}</template
          >{{ $t(". Together this is the {price} paid.", { price: money(data.price) }) }}
        </p>
        <p class="piece" data-piece>
          {{ $t("The piece: wood {price}", { price: money(data.price - data.kept_worth) })
          }}<template v-if="materials?.length">{{
            $t(
              ", and besides boards {besides} for {n} line | , and besides boards {besides} for {n} lines",
              { besides: money(besides) },
              materials.length,
            )
          }}</template
          >: <b>{{ money(data.price - data.kept_worth + besides) }}</b>.
          <RouterLink :to="{ name: 'buy', params: { project: pk }, query: { view: 'besides' } }">{{
            materials?.length ? $t("See the lines") : $t("Hardware, glue, finish")
          }}</RouterLink>
        </p>
      </section>
      <p class="soft closes" data-closes>
        {{
          $t(
            "The categories add up to {sum} of {rough} rough: the account closes. This is what the plan expects.",
            { sum: wood(sum, project.system, 4), rough: woodFigure(data.rough, project.system, 4) },
          )
        }}
      </p>
      <section v-if="data.so_far" class="far" aria-labelledby="so-far">
        <h2 id="so-far">{{ $t("As it has really gone so far") }}</h2>
        <p class="soft">
          {{
            $t("{boards}: {rough} cut into. What is in work becomes something else yet.", {
              boards: data.so_far.boards.join(", "),
              rough: wood(data.so_far.rough, project.system, 2),
            })
          }}
        </p>
        <div class="beside">
          <table class="ruled">
            <thead>
              <tr>
                <th>{{ $t("Where the wood went, {system}", { system: woodUnit(project.system) }) }}</th>
                <th class="num">{{ $t("planned") }}</th>
                <th class="num">{{ $t("so far") }}</th>
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
                <th>{{ $t("Minutes at the machines") }}</th>
                <th class="num">{{ $t("all of it") }}</th>
                <th class="num">{{ $t("foretold for what is done") }}</th>
                <th class="num">{{ $t("taken for it") }}</th>
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

<script setup lang="ts">
/** What to ask the yard for: not only board feet, but the boards that the list needs. */
import { I18nT } from "vue-i18n";
import { ElDescriptions, ElDescriptionsItem, ElTag, ElTooltip } from "element-plus";
import "element-plus/es/components/descriptions/style/css";
import "element-plus/es/components/descriptions-item/style/css";
import "element-plus/es/components/tag/style/css";
import "element-plus/es/components/tooltip/style/css";
import type { Ask } from "../../api/buying";
import { useProject } from "../../api/project";
import { woodColours } from "../../board/geometry";
import Len from "../../controls/Len.vue";
import { isMetric, TICKS_PER_INCH as IN, TICKS_PER_MM as MM } from "../../measure";
import { wood } from "../../wood";
import { t } from "../../i18n/i18n";

defineProps<{ asks: Ask[]; byBooks: Readonly<Record<string, number>> }>();
const { pk, project } = useProject();
const name = (id: string) => project.value?.parts.find((p) => p.id === id)?.name || id;
const names = (ids: readonly string[]) => [...new Set(ids.map(name))].join(", ");
/** To the next mark of a tape: nobody asks for tenths of a millimetre. */
const upTo = (ticks: number) => {
  const step = isMetric(project.value!.system) ? MM : IN / 16;
  return Math.ceil(ticks / step) * step;
};
const TOGETHER: Record<string, string> = {
  run: t("end to end out of one board, so that the grain runs through"),
  match: t("opened like a book out of one thick board"),
  same: t("out of one board"),
};
</script>

<template>
  <div v-if="project">
    <p v-if="asks.length" class="out">
      <a class="act" :href="`/api/projects/${pk}/shopping.pdf`" download>{{
        $t("The card on paper (PDF)")
      }}</a>
    </p>
    <article v-for="a in asks" :key="a.key" class="ask">
      <header :style="{ borderLeftColor: woodColours(a.species)[1] }">
        <h2>
          {{ a.species }} <b>{{ a.quarter || $t("built up") }}</b>
        </h2>
        <ElTooltip
          :content="
            $t(
              'A quarter is a quarter inch of rough thickness: 4/4 is sawn an inch thick and skims to 13/16.',
            )
          "
          placement="top"
          :trigger="['hover', 'focus', 'click']"
        >
          <button class="what" :aria-label="$t('What a quarter is')">?</button>
        </ElTooltip>
        <p class="soft">{{ $t("{pieces} pieces: {parts}", { pieces: a.pieces, parts: names(a.parts) }) }}</p>
      </header>
      <div class="lines">
        <p v-for="(n, i) in a.lengths" :key="i" class="line">
          <b>{{ n.pieces }}</b>
          <span
            >{{
              i
                ? $t("piece: | pieces:", n.pieces)
                : $t("piece, the longest: | pieces, the longest:", n.pieces)
            }}
            <I18nT keypath="clear stretches up to {length} long and {width} wide" scope="global"
              ><template #length
                ><b><Len :ticks="upTo(n.length)" :system="project.system" /></b></template
              ><template #width
                ><b><Len :ticks="upTo(n.width)" :system="project.system" /></b></template></I18nT
            >{{ " " }}<span class="soft">({{ names(n.parts) }})</span></span
          >
        </p>
        <p v-for="(o, i) in a.one_board" :key="`o${i}`" class="line">
          <ElTag effect="dark">{{ $t("one board") }}</ElTag>
          <span
            >{{ names(o.parts) }}: {{ TOGETHER[o.why]
            }}<template v-if="o.length"
              >,
              <I18nT keypath="{length} of it" scope="global"
                ><template #length
                  ><Len :ticks="upTo(o.length)" :system="project.system" /></template></I18nT></template
          ></span>
        </p>
        <p v-for="s in a.staves" :key="s.part" class="line">
          <ElTag effect="dark">{{ $t("narrow will do") }}</ElTag>
          <span
            ><I18nT keypath="{part} is glued up: boards from {width} wide give its staves" scope="global"
              ><template #part>{{ name(s.part) }}</template
              ><template #width><Len :ticks="upTo(s.least)" :system="project.system" /></template></I18nT
          ></span>
        </p>
        <p v-if="a.resaw.length" class="line">
          <ElTag effect="dark">{{ $t("or thicker") }}</ElTag>
          <span>{{
            $t("{resaw}: two come out of one thickness resawn, where you find it", { resaw: names(a.resaw) })
          }}</span>
        </p>
      </div>
      <ElDescriptions :column="1" size="small" border class="facts">
        <ElDescriptionsItem :label="$t('In rough blanks')">{{
          wood(a.blanks, project.system)
        }}</ElDescriptionsItem>
        <ElDescriptionsItem :label="$t('By the rule of thumb')">
          {{ $t("{thumb}, 30 % for waste", { thumb: wood(a.thumb, project.system) }) }}
        </ElDescriptionsItem>
        <ElDescriptionsItem v-if="byBooks[a.species]" :label="$t('As your own books have it')">
          {{
            $t("{finished}, {byBooks} times the parts", {
              finished: wood(a.finished * byBooks[a.species]!, project.system),
              byBooks: byBooks[a.species]!.toFixed(2),
            })
          }}
        </ElDescriptionsItem>
        <ElDescriptionsItem :label="$t('On hand')">
          {{ a.on_hand ? wood(a.on_hand, project.system) : $t("none") }}
        </ElDescriptionsItem>
        <ElDescriptionsItem :label="$t('Must show a clear face')">{{
          $t("{clear} pieces", { clear: a.clear })
        }}</ElDescriptionsItem>
        <ElDescriptionsItem :label="$t('May have tight knots, sapwood')">{{
          $t("{sound} pieces", { sound: a.sound })
        }}</ElDescriptionsItem>
      </ElDescriptions>
    </article>
    <p v-if="asks.length" class="soft foot">
      {{ $t("A rule of thumb knows nothing of long parts or short boards.") }}
      <I18nT keypath="{where} lays the list out on boards as each supplier has them." scope="global"
        ><template #where
          ><RouterLink :to="{ name: 'buy', params: { project: pk }, query: { view: 'ways' } }">{{
            $t("Where, and how much")
          }}</RouterLink></template
        ></I18nT
      >
    </p>
  </div>
</template>

<style scoped>
.ask {
  display: grid;
  grid-template-columns: minmax(13rem, 17rem) minmax(0, 1fr) minmax(17rem, 22rem);
  gap: 1rem 2rem;
  padding: 1.1rem 0;
  border-bottom: 2px solid var(--ink);
}
header {
  border-left: 10px solid;
  padding-left: 0.8rem;
}
header h2 {
  display: inline;
}
.out {
  margin-bottom: 0.4rem;
}
.what {
  border: 0;
  background: none;
  min-width: 44px;
  min-height: 44px;
  font-weight: 700;
  color: var(--chalk-ink);
  cursor: help;
}
.line {
  display: flex;
  gap: 0.7rem;
  align-items: baseline;
  padding: 0.35rem 0;
}
.line > b {
  font-size: 1.4rem;
  font-stretch: 85%;
  min-width: 2ch;
  text-align: right;
}
.foot {
  padding-top: 1rem;
}
@media (max-width: 1000px) {
  .ask {
    grid-template-columns: 1fr;
  }
}
</style>

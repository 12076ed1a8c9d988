<script setup lang="ts">
/** The steps, board by board, each with its figures and its reason. */
import { I18nT } from "vue-i18n";
import { tag } from "../../i18n/i18n";
import { ElButton, ElCollapse, ElCollapseItem } from "element-plus";
import "element-plus/es/components/collapse/style/css";
import "element-plus/es/components/collapse-item/style/css";
import { computed, ref } from "vue";
import type { Method, Milling } from "../../api/milling";
import Fig from "../../controls/Fig.vue";
import StepFigures from "./StepFigures.vue";
import WaysNote from "./WaysNote.vue";

const props = defineProps<{ data: Milling }>();
const emit = defineEmits<{ mark: [string, boolean]; choose: [string, Method] }>();
const chosen = ref("");
const route = computed(() => props.data.routes.find((r) => r.board === chosen.value) ?? props.data.routes[0]);
const machines = computed(() => [...new Set(route.value?.steps.map((s) => s.machine))]);
const next = computed(() => route.value?.steps.find((s) => s.ready)?.key);
</script>

<template>
  <div>
    <nav class="pick" :aria-label="$t('Boards')">
      <ElButton
        v-for="r in data.routes"
        :key="r.board"
        class="act"
        :class="{ on: r.board === route?.board }"
        :aria-pressed="r.board === route?.board"
        @click="chosen = r.board"
      >
        {{ r.board }}
        <span class="soft">{{ r.steps.filter((s) => s.done).length }}/{{ r.steps.length }}</span>
      </ElButton>
    </nav>
    <div v-if="route" class="two">
      <ol class="steps">
        <li v-for="s in route.steps" :key="s.key" :class="{ done: s.done, next: s.key === next }">
          <label class="tick"
            ><input
              type="checkbox"
              :checked="s.done"
              :aria-label="$t('Done: {do}', { do: s.do })"
              @change="emit('mark', s.key, ($event.target as HTMLInputElement).checked)"
          /></label>
          <div class="body">
            <p class="machine">{{ s.machine }}</p>
            <h2><Fig :text="s.do" /></h2>
            <template v-if="!s.done">
              <StepFigures :step="s" :system="data.system" />
              <p v-if="s.down || s.against">
                <template v-if="s.down"
                  ><b>{{ $t("Down:") }}</b> {{ s.down }}. </template
                ><template v-if="s.against"
                  ><b>{{ $t("Against the fence:") }}</b> {{ s.against }}. </template
                ><template v-if="s.first"
                  ><b>{{ $t("{first} first.", { first: s.first }) }}</b></template
                >
              </p>
              <p v-if="s.rests_until" class="note">
                {{
                  $t("It rests until {time}.", {
                    time: new Date(s.rests_until).toLocaleString(tag(), {
                      weekday: "long",
                      hour: "2-digit",
                      minute: "2-digit",
                    }),
                  })
                }}
              </p>
              <WaysNote v-if="s.ways.length" :step="s" @choose="emit('choose', s.key, $event)" />
              <p v-if="s.check">
                <b>{{ $t("Check:") }}</b> <Fig :text="s.check" /><template v-if="s.leaves"
                  >;
                  <I18nT keypath="leaves {size}" scope="global"
                    ><template #size><Fig :text="s.leaves" /></template></I18nT
                ></template>
              </p>
              <p class="soft">
                <b>{{ $t("Why:") }}</b> <Fig :text="s.why" />
              </p>
              <p v-if="s.pieces.length" class="soft pieces">{{ s.pieces.join(", ") }}</p>
            </template>
          </div>
        </li>
      </ol>
      <aside class="cautions">
        <h3>{{ $t("Before you switch on") }}</h3>
        <ElCollapse :model-value="machines"
          ><ElCollapseItem v-for="m in machines" :key="m" :name="m" :title="m">
            <ul>
              <li v-for="c in data.cautions[m]" :key="c">{{ c }}</li>
            </ul>
          </ElCollapseItem></ElCollapse
        >
      </aside>
    </div>
  </div>
</template>

<style scoped>
.pick {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin-bottom: 1.2rem;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 19rem;
  gap: 2rem;
}
.steps {
  list-style: none;
  margin: 0;
  padding: 0;
}
.steps > li {
  display: flex;
  gap: 0.8rem;
  padding: 0.9rem 0;
  border-top: 2px solid var(--ink);
}
.steps > li.done {
  color: var(--ink-soft);
  padding-block: 0.3rem;
}
.steps > li.done h2 {
  font-size: 1rem;
  text-decoration: line-through;
}
.steps > li.next {
  box-shadow: inset 8px 0 0 var(--crayon);
  padding-left: 1.2rem;
}
.tick {
  display: grid;
  place-items: center;
  width: 44px;
  height: 44px;
  flex: 0 0 auto;
}
.tick input {
  width: 26px;
  height: 26px;
  accent-color: var(--chalk);
}
.body {
  display: flex;
  flex-direction: column;
  gap: 0.55rem;
  min-width: 0;
}
.machine {
  font-weight: 620;
  color: var(--ink-soft);
}
.pieces {
  font-size: 0.9rem;
}
.cautions {
  align-self: start;
  border-left: 6px solid var(--tape);
  padding-left: 1rem;
  font-size: 0.92rem;
}
.cautions ul {
  margin: 0 0 0.8rem;
  padding-left: 1.1rem;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

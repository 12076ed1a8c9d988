<script setup lang="ts">
/**
 * The way through a project: a measuring tape pulled out of its case. The blade reaches as far as the
 * project has come, the steel hook sits at its end, and what lies beyond is still bare bench.
 */
import { computed } from "vue";
import { STAGES, type StageName } from "../stages/stages";

const props = defineProps<{
  pk: number;
  name: string;
  reached: number;
  current: StageName | "";
  rack?: boolean;
}>();
const share = computed(() => `${((props.reached + 1) / STAGES.length) * 100}%`);
</script>

<template>
  <header class="tape">
    <RouterLink
      to="/"
      class="case"
      :aria-label="$t('Vivid Plank {name}: back to the shelf of projects', { name })"
    >
      <span class="maker">Vivid Plank</span>
      <span class="project">{{ name }}</span>
    </RouterLink>
    <nav v-if="rack" class="rack-way">
      <RouterLink to="/stock" class="act">{{ $t("← Stock room") }}</RouterLink>
    </nav>
    <nav v-else class="run" :aria-label="$t('Stages of the project')">
      <div class="blade" :style="{ width: share }" aria-hidden="true"><span class="hook" /></div>
      <ol>
        <li
          v-for="(stage, i) in STAGES"
          :key="stage.name"
          :class="{ beyond: i > reached, here: stage.name === current }"
        >
          <RouterLink
            :to="{ name: stage.name, params: { project: pk } }"
            :aria-current="stage.name === current ? 'page' : undefined"
          >
            <span class="mark" aria-hidden="true">{{ i + 1 }}</span>
            <span class="word">{{ stage.word }}</span>
          </RouterLink>
        </li>
      </ol>
    </nav>
  </header>
</template>

<style scoped>
.tape {
  display: flex;
  align-items: stretch;
  height: var(--tape-high);
  position: sticky;
  top: 0;
  z-index: 30;
  background: var(--plaster);
  border-bottom: 2px solid var(--ink);
}
.rack-way {
  display: flex;
  align-items: center;
  padding: 0 1rem;
}
.case {
  flex: 0 0 auto;
  display: flex;
  flex-direction: column;
  justify-content: center;
  max-width: 15rem;
  padding: 0 1.6rem 0 1.2rem;
  background: var(--ink);
  color: #fff;
  text-decoration: none;
  border-radius: 0 26px 0 0;
  position: relative;
  z-index: 2;
}
.maker {
  font-size: 0.72rem;
  color: var(--tape);
  font-weight: 600;
}
.project {
  font-weight: 700;
  font-stretch: 88%;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.run {
  position: relative;
  flex: 1;
  min-width: 0;
  overflow: clip;
}
.blade {
  position: absolute;
  inset: 8px auto 8px 0;
  background-color: var(--tape);
  background-image:
    repeating-linear-gradient(90deg, var(--ink) 0 1px, transparent 1px 20px),
    repeating-linear-gradient(90deg, var(--ink) 0 1px, transparent 1px 10px),
    repeating-linear-gradient(90deg, var(--ink) 0 1px, transparent 1px 5px);
  background-size:
    100% 12px,
    100% 8px,
    100% 5px;
  background-repeat: no-repeat;
  border-block: 1px solid var(--tape-deep);
  transition: width 0.35s ease-out;
}
.hook {
  position: absolute;
  right: 0;
  top: -4px;
  width: 9px;
  height: 60px;
  background: linear-gradient(90deg, #cfd6da, var(--steel));
  border: 1px solid var(--ink-soft);
  border-radius: 1px 1px 3px 3px;
}
ol {
  position: relative;
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: 1fr;
  height: 100%;
  margin: 0;
  padding: 0;
  list-style: none;
}
li a {
  display: flex;
  align-items: flex-end;
  gap: 0.45rem;
  height: 100%;
  padding: 0 0.6rem 13px;
  color: var(--ink);
  text-decoration: none;
  font-weight: 640;
  font-stretch: 90%;
  border-right: 1px solid rgb(18 23 29 / 35%);
  position: relative;
}
.mark {
  font-size: 0.72rem;
  font-weight: 500;
  padding-bottom: 2px;
}
.beyond a {
  color: var(--ink-soft);
  font-weight: 520;
  border-right-style: dashed;
}
.here a::after {
  content: "";
  position: absolute;
  left: 0.5rem;
  right: 0.8rem;
  bottom: 8px;
  height: 4px;
  background: var(--crayon);
}
.here .word {
  font-weight: 800;
}
li a:hover .word {
  text-decoration: underline;
  text-underline-offset: 3px;
}
li a:focus-visible {
  outline-offset: -4px;
}
@media (max-width: 860px) {
  .tape {
    flex-direction: column;
    height: auto;
  }
  .case {
    flex-direction: row;
    justify-content: space-between;
    align-items: center;
    max-width: none;
    min-height: 44px;
    border-radius: 0;
    gap: 1rem;
    padding-right: 1rem;
  }
  .run {
    flex: 0 0 52px;
  }
  .hook {
    height: 46px;
  }
  .blade {
    inset: 4px auto 4px 0;
  }
  li a {
    padding: 0 0 9px;
    justify-content: center;
    font-size: 0.82rem;
  }
  .mark {
    display: none;
  }
  .here a::after {
    bottom: 5px;
    left: 0.2rem;
    right: 0.2rem;
  }
}
</style>

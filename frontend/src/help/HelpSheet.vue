<script setup lang="ts">
/** Help by stage, the trade's words, the keys; `?` opens it anywhere. All of it is there without a server. */
import { useEventListener } from "@vueuse/core";
import { useQueryClient } from "@tanstack/vue-query";
import { ElButton, ElCollapse, ElCollapseItem, ElSwitch, ElTabPane, ElTabs } from "element-plus";
import "element-plus/es/components/collapse/style/css";
import "element-plus/es/components/collapse-item/style/css";
import { computed } from "vue";
import { useRoute } from "vue-router";
import type { Schemas } from "../api/client";
import AppDialog from "../controls/AppDialog.vue";
import { inField, setSingleKeys, singleKeys } from "../controls/keys";
import { STAGES } from "../stages/stages";
import { help, showHelp } from "./showing";
import { TERMS } from "./terms";
import { TOPICS } from "./topics";
import { tour } from "./touring";
import { t } from "../i18n/i18n";

const emit = defineEmits<{ round: [number] }>();
const route = useRoute();
const client = useQueryClient();
type Entry = Schemas["ShelfBody"];
/** The demo, where there is one on the shelf. */
const demo = computed(() => {
  void help.open; // looked up anew each time it is opened
  return client.getQueryData<Entry[]>(["shelf"])?.find((p) => p.demo)?.pk ?? 0;
});
const KEYS: [string, string][] = [
  ["?", t("help: by stage, the words, these keys")],
  ["Ctrl K", t("find a stage, a part, a board, a word")],
  ["1 … 7", t("go to a stage of the tape")],
  ["0", t("back to the shelf")],
  ["Ctrl Z", t("undo the last edit of the project")],
  ["Ctrl Shift Z", t("do it again")],
  ["N", t("a new part, board or project, where you are")],
  ["Enter, ↑ ↓", t("List: keep the cell and go to the row below or above")],
  ["Ctrl V", t("List: paste rows from a spreadsheet; in a cell, a block over the cells")],
  ["Ctrl D", t("List: fill down, to the chosen rows or the next one")],
  ["=", t("List: a size as a formula over the measures")],
  ["M, C", t("List: the measures, what to ask about")],
  ["S, P, M", t("Draw, on a sheet: set a scale, draw a part, move the sheet; arrows nudge")],
  ["L", t("Lay out: search; once more to stop")],
  ["Tab, Enter", t("Lay out: go from piece to piece, take one in hand")],
  ["M, P, Del", t("Lay out: move it by the arrows, pin it, take it up")],
  ["S, T, X, J, B", t("Lay out: change places, turn, cut behind, join, nothing here")],
  ["U, R, K", t("Lay out: back, forth, plans kept")],
  ["Ctrl Enter", t("Boards: take a reading into the field with the cursor")],
  ["Space", t("Machine: a pass taken, a step done; ← → go back and forth")],
  ["← →", t("Mill, see the passes: a pass back, a pass on")],
  ["Esc", t("leave a field as it was, close a sheet")],
];
function key(event: KeyboardEvent): void {
  if (event.key !== "?" || (!help.open && inField(event))) return;
  if (help.open) help.open = false;
  else showHelp("stages", STAGES.find((s) => s.name === route.name)?.name ?? "");
}
useEventListener("keydown", key);
</script>

<template>
  <AppDialog v-model="help.open" :title="$t('Help')" width="44rem">
    <ElTabs v-model="help.tab">
      <ElTabPane :label="$t('Stage by stage')" name="stages">
        <ElCollapse v-model="help.stage" accordion>
          <ElCollapseItem v-for="topic in TOPICS" :key="topic.stage" :name="topic.stage" :title="topic.title">
            <p v-for="s in topic.says" :key="s" class="says">{{ s }}</p>
            <p v-for="term in topic.terms" :key="term" class="soft">
              <b>{{ term }}</b>: {{ TERMS[term] }}
            </p>
          </ElCollapseItem>
        </ElCollapse>
        <p v-if="demo" class="round">
          <ElButton class="act" @click="emit('round', demo)">{{
            tour.at ? $t("Go on with the walk through the demo") : $t("Walk through the demo")
          }}</ElButton>
          <span class="soft">{{ $t("Eight stops, three minutes; Esc leaves it.") }}</span>
        </p>
      </ElTabPane>
      <ElTabPane :label="$t('Words')" name="words">
        <dl>
          <template v-for="(means, word) in TERMS" :key="word">
            <dt>{{ word }}</dt>
            <dd>{{ means }}</dd>
          </template>
        </dl>
      </ElTabPane>
      <ElTabPane :label="$t('Keys')" name="keys">
        <table class="ruled">
          <tbody>
            <tr v-for="[keys, what] in KEYS" :key="keys">
              <td>
                <b>{{ keys }}</b>
              </td>
              <td>{{ what }}</td>
            </tr>
          </tbody>
        </table>
        <p class="switch">
          <ElSwitch
            :model-value="singleKeys"
            :aria-label="$t('Single letters and digits are keys')"
            @change="setSingleKeys(!!$event)"
          />
          {{
            $t(
              "Single letters and digits are keys. Off, only keys with Ctrl, arrows, Enter and Esc do something.",
            )
          }}
        </p>
      </ElTabPane>
    </ElTabs>
  </AppDialog>
</template>

<style scoped>
.switch {
  display: flex;
  align-items: center;
  gap: 0.8rem;
}
.says {
  margin-bottom: 0.5rem;
}
.round {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
  align-items: center;
  margin-top: 1rem;
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 0.4rem 1.2rem;
  margin: 0;
}
dt {
  font-weight: 620;
}
dd {
  margin: 0;
}
</style>

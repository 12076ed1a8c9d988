<script setup lang="ts">
/** What else might be cheaper: each idea is solved by the worker before it stands here. */
import { ElButton } from "element-plus";
import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { computed } from "vue";
import { api } from "../../api/client";
import Fig from "../../controls/Fig.vue";
import { withErrorToast } from "../../controls/withErrorToast";
import { money } from "../../money";

const props = defineProps<{ layout: number }>();
const client = useQueryClient();
const { data } = useQuery({
  queryKey: computed(() => ["what-ifs", props.layout]),
  queryFn: async () =>
    (await api.GET("/api/layouts/{layout}/what-ifs", { params: { path: { layout: props.layout } } })).data!,
  refetchInterval: (query) => (query.state.data?.asked && !query.state.data.done ? 1000 : false),
});
async function ask(): Promise<void> {
  await withErrorToast(async () => {
    await api.POST("/api/layouts/{layout}/what-ifs", { params: { path: { layout: props.layout } } });
    await client.invalidateQueries({ queryKey: ["what-ifs", props.layout] });
  });
}
</script>

<template>
  <section class="saves" :aria-label="$t('What would save')">
    <p v-if="!data?.asked" class="ask">
      <ElButton class="act" @click="ask">{{ $t("Think it over") }}</ElButton>
      <span class="soft">{{
        $t(
          "Parts shorter, narrower or less exacting, blanks sawn free first, one more board: each is laid out anew, about two seconds apiece, and stands here only if it saves.",
        )
      }}</span>
    </p>
    <template v-else>
      <p v-if="!data.done" class="soft" role="status">
        {{
          $t("Thinking it over; {found}", {
            found: data.found.length ? $t("so far:") : $t("nothing found that saves yet."),
          })
        }}
      </p>
      <p v-else-if="!data.found.length" class="note">
        {{
          $t(
            "Nothing of what was tried saves anything: no part shorter, narrower or less exacting, and no other board.",
          )
        }}
      </p>
      <ul v-if="data.found.length">
        <li v-for="t in data.found" :key="t.kind + t.about">
          <b>{{
            t.placed > 0
              ? $t("{placed} more placed", { placed: t.placed })
              : $t("saves {saves}", { saves: money(t.saves) })
          }}</b>
          <span><Fig :text="t.words" /></span>
        </li>
      </ul>
      <p v-if="data.done" class="soft">
        {{ $t("Each was laid out anew for about two seconds; a longer search may find more.") }}
        <ElButton class="act quiet" @click="ask">{{ $t("Think again") }}</ElButton>
      </p>
    </template>
  </section>
</template>

<style scoped>
.saves {
  border-top: 6px solid var(--tape);
  padding: 0.6rem 0 1rem;
}
.ask {
  display: flex;
  gap: 0.9rem;
  align-items: center;
}
ul {
  list-style: none;
  margin: 0.2rem 0;
  padding: 0;
}
li {
  display: flex;
  gap: 1rem;
  align-items: baseline;
  padding: 0.25rem 0;
}
li b {
  min-width: 8.5rem;
  font-size: 1.15rem;
}
</style>

<script setup lang="ts">
/** At the jointer: what of the face the passes so far should have cleaned, and what the next one touches. */
import { I18nT } from "vue-i18n";
import { useQuery } from "@tanstack/vue-query";
import { computed } from "vue";
import { api, type Schemas, type Step } from "../../api/client";
import FaceLines from "./FaceLines.vue";
import { t } from "../../i18n/i18n";

const props = defineProps<{ step: Step; layout: number; taken: number }>();
const ask = computed<Schemas["PassesBody"]>(() => ({
  piece: props.step.piece,
  machine: "jointer",
  down: props.step.cuts,
  press: "outfeed",
  far_end_first: props.step.first === "far end",
}));
const { data } = useQuery({
  queryKey: computed(() => ["passes", props.layout, ask.value]),
  queryFn: async () =>
    (
      await api.POST("/api/layouts/{layout}/passes", {
        params: { path: { layout: props.layout } },
        body: ask.value,
      })
    ).data!,
  retry: false,
});
const at = computed(() => Math.min(props.taken, (data.value?.frames.length ?? 1) - 1));
const now = computed(() => data.value?.frames[at.value]);
const next = computed(() => data.value?.frames[at.value + 1]);
const label = computed(() => {
  const share = Math.round(100 * (now.value?.clean ?? 0));
  return next.value
    ? t("{share} percent of the face is clean, {after} after the next pass", {
        share,
        after: Math.round(100 * next.value.clean),
      })
    : t("{share} percent of the face is clean", { share });
});
</script>

<template>
  <figure v-if="data && now">
    <FaceLines
      :lines="now.lines"
      :next="next?.lines"
      :length="data.length"
      :width="data.width"
      :label="label"
    />
    <figcaption>
      {{ $t("The face that is down, the datum end at the left.") }}
      <template v-if="next"
        ><I18nT keypath="{red}: what the next pass touches, {share} % clean after it." scope="global"
          ><template #red
            ><b class="red">{{ $t("Red") }}</b></template
          ><template #share>{{ Math.round(100 * next.clean) }}</template></I18nT
        >{{ " " }}</template
      >{{ $t("Grey pencil lines stay. Reckoned from the survey; look at the wood.") }}
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
figcaption {
  margin-top: 0.3rem;
  font-size: 1.05rem;
}
.red {
  color: var(--crayon-ink);
}
</style>

<script setup lang="ts">
/** The machines a project is made on: those of its workshop, which may be another one. */
import { computed } from "vue";
import { useSettings } from "../../api/milling";
import { useProjectWorkshop, useWorkshops, type Shared } from "../../api/workshop";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import { withErrorToast } from "../../controls/withErrorToast";
import type { System } from "../../measure";
import MachinesView from "./MachinesView.vue";

const props = defineProps<{ project: number; system: System }>();
const pk = computed(() => props.project);
const { settings, change, refusals } = useSettings(pk);
const { data: all } = useWorkshops();
const { workshop, choose } = useProjectWorkshop(pk);
const set = (make: (now: Shared) => Shared): Promise<void> => change((now) => ({ ...now, ...make(now) }));
const others = computed(() => (workshop.value?.projects ?? 1) - 1);
</script>

<template>
  <div>
    <div v-if="workshop && all" class="place">
      <ChoiceField
        :label="$t('Made in')"
        :options="all.map((w) => [w.pk, w.name] as const)"
        :model-value="workshop.pk"
        @update:model-value="$event && withErrorToast(() => choose($event!))"
      />
      <p class="soft">
        {{ $t("What is set here is set for the workshop")
        }}<template v-if="others">{{
          $t(", and so for {n} other project | , and so for {n} other projects", others)
        }}</template
        >.
        <RouterLink :to="{ name: 'workshop', params: { workshop: workshop.pk } }">{{
          $t("Open the workshop")
        }}</RouterLink>
        {{ $t("for its people, what it has learned, and another one to make this in.") }}
      </p>
    </div>
    <MachinesView
      v-if="settings"
      :key="`${workshop?.pk} ${refusals}`"
      :settings="settings"
      :system="system"
      :change="set"
    >
      <slot />
    </MachinesView>
  </div>
</template>

<style scoped>
.place {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 0.4rem 1.6rem;
  margin-bottom: 1rem;
}
.place .field {
  flex: 0 1 18rem;
}
.place p {
  flex: 1 1 22rem;
  margin: 0 0 0.5rem;
}
</style>

<script setup lang="ts">
/** A thing as it stands now, beside what an edit wants of it. */
import { computed } from "vue";
import type { Clash } from "../api/edits";
import type { System } from "../measure";
import { differing, WORDS } from "./differing";

const props = defineProps<{ clash: Clash; system: System }>();
const rows = computed(() => differing(props.clash, props.system));
</script>

<template>
  <section>
    <h3>{{ WORDS[clash.what] }} {{ clash.id }}</h3>
    <table class="ruled">
      <thead>
        <tr>
          <th></th>
          <th>{{ $t("As it stands now") }}</th>
          <th>{{ $t("Yours") }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.field">
          <td>{{ row.field }}</td>
          <td>{{ row.theirs }}</td>
          <td>
            <b>{{ row.mine }}</b>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
h3 {
  margin: 1rem 0 0.3rem;
}
table {
  width: 100%;
}
</style>

<script setup lang="ts">
/** What a pasted table was understood as, beside what was not, before anything is added. */
import { useQuery } from "@tanstack/vue-query";
import { ElDialog } from "element-plus";
import { computed, ref } from "vue";
import { api } from "../../api/client";
import { useProject } from "../../api/project";
import Len from "../../controls/Len.vue";

const props = defineProps<{ text: string }>();
const emit = defineEmits<{ close: []; added: [] }>();
const { pk, project, edit } = useProject();
const species = ref("");
const open = ref(true);

const { data, error, isFetching } = useQuery({
  queryKey: computed(() => ["read-list", pk.value, props.text, species.value]),
  queryFn: async () =>
    (
      await api.POST("/api/projects/{project}/read-list", {
        params: { path: { project: pk.value } },
        body: { text: props.text, species: species.value },
      })
    ).data!,
  gcTime: 0,
});

function add(): void {
  const parts = data.value?.parts ?? [];
  if (!parts.length) return;
  void edit({ label: parts.length === 1 ? "a pasted part" : `${parts.length} pasted parts`, put_parts: parts });
  emit("added");
  close();
}
function close(): void {
  open.value = false;
  emit("close");
}
</script>

<template>
  <ElDialog v-model="open" title="Read from the list" width="56rem" @closed="emit('close')">
    <div v-if="project" class="body">
      <p v-if="error" class="note">{{ error.message }}</p>
      <label class="field wood"><span>Wood where a row names none</span><input v-model.lazy="species" class="line-input" placeholder="white oak" /></label>
      <div v-if="data?.parts.length" class="scroll">
        <table class="ruled">
          <thead>
            <tr><th>Mark</th><th>Part</th><th class="num">Count</th><th class="num">Length</th><th class="num">Width</th><th class="num">Thickness</th><th>Wood</th><th>Faces</th></tr>
          </thead>
          <tbody>
            <tr v-for="p in data.parts" :key="p.id">
              <td><b>{{ p.id }}</b></td><td>{{ p.name }}</td><td class="num">{{ p.quantity }}</td>
              <td class="num"><Len :ticks="p.length" :system="project.system" /></td>
              <td class="num"><Len :ticks="p.width" :system="project.system" /></td>
              <td class="num"><Len :ticks="p.thickness" :system="project.system" /></td>
              <td>{{ p.species }}</td><td>{{ p.faces }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="data?.noted.length" class="note">Not columns of the list, so kept in each part's note: {{ data.noted.join(", ") }}.</p>
      <div v-if="data?.refused.length" class="refused">
        <h3>Not understood</h3>
        <p v-for="r in data.refused" :key="r.row" class="note"><span><b>Row {{ r.row }}:</b> <code>{{ r.text }}</code><br />{{ r.why }}</span></p>
      </div>
      <p v-if="data && !data.parts.length && !data.refused.length">There are no rows in it.</p>
      <div class="buttons">
        <button class="act lead" :disabled="!data?.parts.length || isFetching" @click="add">Add {{ data?.parts.length ?? 0 }} part{{ data?.parts.length === 1 ? "" : "s" }}</button>
        <button class="act" @click="close">Leave it</button>
      </div>
    </div>
  </ElDialog>
</template>

<style scoped>
.body {
  display: flex;
  flex-direction: column;
  gap: 1rem;
}
.wood {
  max-width: 18rem;
}
.scroll {
  overflow: auto;
  max-height: 45vh;
}
.refused {
  display: flex;
  flex-direction: column;
  gap: 0.4rem;
}
.buttons {
  display: flex;
  gap: 0.6rem;
}
</style>

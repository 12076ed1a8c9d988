<script setup lang="ts">
/** A piece begun from its overall sizes: a pattern writes formula parts with their joinery. */
import { ElButton } from "element-plus";
import { keepPreviousData, useQuery } from "@tanstack/vue-query";
import { computed, ref } from "vue";
import { useRouter } from "vue-router";
import { api, type Schemas } from "../../api/client";
import { useProject } from "../../api/project";
import Len from "../../controls/Len.vue";
import { show } from "../../measure";
import PatternSketch from "./PatternSketch.vue";
import AppDialog from "../../controls/AppDialog.vue";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import WoodField from "../../controls/fields/WoodField.vue";
import { t } from "../../i18n/i18n";

const emit = defineEmits<{ close: [] }>();
const { pk, project, edit } = useProject();
const router = useRouter();
const open = ref(true);
const pattern = ref("carcass");
const values = ref<Record<string, string>>({});
/** What stands in a field that is not left yet: the answer to the one before must not take it back. */
const typing = ref<Record<string, string>>({});
const choices = ref<Record<string, string>>({});
const species = ref(project.value?.parts.at(-1)?.species ?? "white oak");

const { data: patterns } = useQuery({
  queryKey: ["patterns"],
  queryFn: async () => (await api.GET("/api/patterns")).data!.patterns,
  staleTime: Infinity,
});
const { data, error } = useQuery({
  queryKey: computed(() => [
    "pattern",
    pk.value,
    project.value?.version,
    pattern.value,
    values.value,
    choices.value,
    species.value,
  ]),
  queryFn: async () =>
    (
      await api.POST("/api/projects/{project}/pattern", {
        params: { path: { project: pk.value } },
        body: {
          pattern: pattern.value,
          values: values.value,
          choices: choices.value,
          species: species.value,
        },
      })
    ).data!,
  placeholderData: keepPreviousData,
});
function start(key: string): void {
  pattern.value = key;
  values.value = {};
  typing.value = {};
  choices.value = {};
}
function typed(key: string, text: string): void {
  typing.value = Object.fromEntries(Object.entries(typing.value).filter(([other]) => other !== key));
  values.value = { ...values.value, [key]: text };
}
function shown(m: Schemas["PatternMeasureBody"]): string {
  if (m.ticks !== null) return show(m.ticks, project.value!.system);
  return String(Math.round((m.number ?? 0) * 1e4) / 1e4);
}
async function put(): Promise<void> {
  const written = data.value!;
  const measures = [
    ...project.value!.measures.map(({ name, text, kind, note }) => ({ name, text, kind, note })),
    ...written.measures.map((m) => ({ name: m.name, text: m.text, kind: m.kind, note: m.says })),
  ];
  if (
    await edit({
      label: t("the pattern {title}", { title: written.title.toLowerCase() }),
      put_parts: written.parts,
      measures,
    })
  ) {
    emit("close");
    await router.push({ name: "list", params: { project: pk.value } });
  }
}
</script>

<template>
  <AppDialog
    v-model="open"
    :title="$t('Start from a pattern')"
    width="76rem"
    top="4vh"
    @closed="emit('close')"
  >
    <div v-if="project" class="pattern">
      <nav class="kinds" :aria-label="$t('Patterns')">
        <ElButton
          v-for="p in patterns"
          :key="p.pattern"
          class="act"
          :class="{ on: p.pattern === pattern }"
          @click="start(p.pattern)"
        >
          {{ p.title }}
        </ElButton>
      </nav>
      <p class="soft">{{ data?.says }}</p>
      <p v-if="data?.trouble || error" class="note">{{ data?.trouble || error?.message }}</p>
      <p v-for="w in data?.warnings ?? []" :key="w" class="note">{{ w }}</p>
      <div class="two">
        <div class="sizes">
          <WoodField v-model="species" :label="$t('Wood')" />
          <ChoiceField
            v-for="c in data?.choices ?? []"
            :key="c.name"
            :label="c.says"
            :options="c.options.map((o) => [o, o] as const)"
            :model-value="c.chosen"
            @update:model-value="choices = { ...choices, [c.name]: $event! }"
          />
          <div class="measures">
            <label v-for="m in data?.measures.filter((m) => m.own) ?? []" :key="m.key" class="field"
              ><span
                ><b>{{ m.name }}</b> {{ m.says }}</span
              >
              <input
                class="line-input"
                :value="typing[m.key] ?? (values[m.key] || m.text)"
                :aria-label="m.says"
                @input="typing = { ...typing, [m.key]: ($event.target as HTMLInputElement).value }"
                @change="typed(m.key, ($event.target as HTMLInputElement).value)"
              />
            </label>
          </div>
          <p v-for="m in data?.measures.filter((m) => !m.own) ?? []" :key="m.key" class="follows">
            <b>{{ m.name }}</b> = {{ m.text }} = <b>{{ shown(m) }}</b> <span class="soft">{{ m.says }}</span>
          </p>
        </div>
        <div class="seen" tabindex="0" role="region" :aria-label="$t('What the pattern makes')">
          <div class="sketches">
            <PatternSketch
              v-for="s in data?.sketches ?? []"
              :key="s.name"
              :sketch="s"
              :system="project.system"
              :species="species"
            />
          </div>
          <table class="ruled">
            <thead>
              <tr>
                <th>{{ $t("Part") }}</th>
                <th class="num">{{ $t("Count") }}</th>
                <th class="num">{{ $t("Length") }}</th>
                <th class="num">{{ $t("Width") }}</th>
                <th class="num">{{ $t("Thickness") }}</th>
                <th>{{ $t("Joint") }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="p in data?.parts ?? []" :key="p.id">
                <td>
                  <b>{{ p.id }}</b> {{ p.name
                  }}<span v-if="p.stock === 'sheet'" class="soft"> {{ " " + $t("(sheet)") }}</span>
                </td>
                <td class="num">{{ p.quantity }}</td>
                <td class="num"><Len :ticks="p.length" :system="project.system" bare nearest /></td>
                <td class="num"><Len :ticks="p.width" :system="project.system" bare nearest /></td>
                <td class="num"><Len :ticks="p.thickness" :system="project.system" nearest /></td>
                <td>
                  {{ p.joint
                  }}<template v-if="p.joint_length"
                    >, <Len :ticks="p.joint_length" :system="project.system" bare nearest />
                    {{ $t("in it") }}</template
                  >
                </td>
              </tr>
            </tbody>
          </table>
          <p v-for="a in data?.arithmetic ?? []" :key="a" class="soft">{{ a }}</p>
        </div>
      </div>
      <ElButton class="act lead" :disabled="!data || !!data.trouble || !!error" @click="put">
        {{ $t("Put its {parts} parts on the list", { parts: data?.parts.length ?? 0 }) }}
      </ElButton>
    </div>
  </AppDialog>
</template>

<style scoped>
.pattern {
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
}
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.two {
  display: grid;
  grid-template-columns: 22rem minmax(0, 1fr);
  gap: 1.4rem;
}
.sizes,
.seen {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
  max-height: 60vh;
  overflow: auto;
}
.measures {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.5rem 0.8rem;
}
.follows {
  font-size: 0.85rem;
}
.sketches {
  display: grid;
  grid-template-columns: 2fr 1fr 1fr;
  gap: 0.6rem;
}
@media (max-width: 900px) {
  .two,
  .sketches {
    grid-template-columns: minmax(0, 1fr);
  }
  .sizes,
  .seen {
    max-height: none;
  }
}
</style>

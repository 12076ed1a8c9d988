<script setup lang="ts">
/** Those who work here: their names stand in the log beside what they did. */
import { ElButton, ElInput, ElTag } from "element-plus";
import "element-plus/es/components/tag/style/css";
import { ref } from "vue";
import ChoiceField from "../../controls/fields/ChoiceField.vue";
import { who } from "../../api/who";

const props = defineProps<{ people: string[] }>();
const emit = defineEmits<{ change: [string[]] }>();
const name = ref("");
function add(): void {
  const fresh = name.value.trim();
  if (fresh && !props.people.includes(fresh)) emit("change", [...props.people, fresh]);
  name.value = "";
}
</script>

<template>
  <div class="people">
    <p class="soft">
      {{
        $t(
          "At the machine each picks a name once on a screen; the log says who took a step or found a fault.",
        )
      }}
    </p>
    <p v-if="people.length">
      <ElTag
        v-for="one in people"
        :key="one"
        closable
        size="large"
        type="info"
        @close="
          emit(
            'change',
            people.filter((p) => p !== one),
          )
        "
        >{{ one }}</ElTag
      >
    </p>
    <form @submit.prevent="add">
      <label class="field"
        ><span>{{ $t("Who works here too") }}</span
        ><ElInput v-model="name" maxlength="80" :placeholder="$t('A name')"
      /></label>
      <ElButton class="act" native-type="submit" :disabled="!name.trim()">{{ $t("Add") }}</ElButton>
    </form>
    <ChoiceField
      v-if="people.length"
      v-model="who"
      class="me"
      :label="$t('At this screen works')"
      :options="[['', $t('nobody named')], ...people.map((p) => [p, p] as const)]"
    />
  </div>
</template>

<style scoped>
form {
  display: flex;
  align-items: end;
  gap: 0.8rem;
  max-width: 26rem;
}
form .field {
  flex: 1;
}
.people .el-tag {
  margin-right: 0.6rem;
}
.me {
  max-width: 18rem;
  margin-top: 1.2rem;
}
</style>

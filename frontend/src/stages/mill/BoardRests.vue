<script setup lang="ts">
/** A board that is to rest on stickers before it is cut, and until when. */
import type { Schemas } from "../../api/client";
import { dayName } from "./day";

defineProps<{ rests: Schemas["Resting"]; begins: string }>();
</script>

<template>
  <p class="note">
    <span
      ><b>{{ rests.board }}</b> was read at {{ rests.percent.toFixed(1) }} %, where the air of the workshop
      asks for {{ rests.equilibrium.toFixed(1) }}: it rests on stickers until
      {{ dayName(begins, rests.until) }}. Read it again before that day; a board dries at its own speed.</span
    >
  </p>
</template>

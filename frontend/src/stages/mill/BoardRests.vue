<script setup lang="ts">
/** A board that is to rest on stickers before it is cut, and until when. */
import type { Schemas } from "../../api/client";
import { dayName } from "./day";

defineProps<{ rests: Schemas["Resting"]; begins: string }>();
</script>

<template>
  <p class="note">
    <span
      ><b>{{ rests.board }}</b>
      {{
        $t(
          "was read at {percent} %, where the air of the workshop asks for {equilibrium}: it rests on stickers until {begins}. Read it again before that day; a board dries at its own speed.",
          {
            percent: rests.percent.toFixed(1),
            equilibrium: rests.equilibrium.toFixed(1),
            begins: dayName(begins, rests.until),
          },
        )
      }}</span
    >
  </p>
</template>

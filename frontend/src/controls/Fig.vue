<script setup lang="ts">
/** A text whose fractions are set as real ones: "2 3/16 in" reads two and three sixteenths. */
import { computed } from "vue";

const props = defineProps<{ text: string }>();

interface Piece {
  plain: string;
  whole?: string;
  n?: string;
  d?: string;
}

const pieces = computed<Piece[]>(() => {
  const found: Piece[] = [];
  let at = 0;
  for (const hit of props.text.matchAll(/(\d+) (\d+)\/(\d+)|(?<![\d/.])(\d+)\/(2|4|8|16|32|64)(?![\d/])/g)) {
    found.push({
      plain: props.text.slice(at, hit.index),
      whole: hit[1],
      n: hit[2] ?? hit[4],
      d: hit[3] ?? hit[5],
    });
    at = hit.index + hit[0].length;
  }
  found.push({ plain: props.text.slice(at) });
  return found;
});
</script>

<template>
  <span
    ><template v-for="(piece, i) in pieces" :key="i"
      >{{ piece.plain
      }}<span v-if="piece.n" class="frac"
        >{{ piece.whole }}<span v-if="piece.whole" class="gap">{{ " " }}</span
        ><sup>{{ piece.n }}</sup
        ><span class="bar">/</span><sub>{{ piece.d }}</sub></span
      ></template
    ></span
  >
</template>

<style scoped>
.frac {
  white-space: nowrap;
}
/* A real space, narrow to the eye: what is copied or read aloud stays a whole and a fraction. */
.gap {
  font-size: 0.45em;
}
.frac sup,
.frac sub {
  font-size: 0.62em;
  line-height: 0;
}
.frac sup {
  vertical-align: 0.42em;
}
.frac sub {
  vertical-align: -0.06em;
}
.bar {
  font-size: 0.85em;
  margin: 0 -0.04em;
}
</style>

<script setup lang="ts">
/** A button that asks for one file; the file is given on, and sent by whoever asked for it. */
import { ElUpload, type UploadRawFile } from "element-plus";
import "element-plus/es/components/upload/style/css";

defineProps<{ accept: string; look?: "lead" | "quiet"; disabled?: boolean }>();
const emit = defineEmits<{ file: [File] }>();
function chosen(file: UploadRawFile): false {
  emit("file", file);
  return false;
}
</script>

<template>
  <ElUpload
    :accept="accept"
    :disabled="disabled"
    :before-upload="chosen"
    :show-file-list="false"
    class="upload"
  >
    <span class="act" :class="look" :aria-disabled="disabled"><slot /></span>
  </ElUpload>
</template>

<style scoped>
.upload {
  display: inline-flex;
}
</style>

<script setup lang="ts">
/** A button that opens a list of things to take or to do. */
import { ElButton, ElDropdown, ElDropdownItem, ElDropdownMenu } from "element-plus";
import "element-plus/es/components/dropdown/style/css";
import "element-plus/es/components/dropdown-item/style/css";
import "element-plus/es/components/dropdown-menu/style/css";

/** A file of the server at `href`, or something to do. */
export type MenuItem = { label: string } & ({ href: string } | { act: () => void });
defineProps<{ label: string; items: readonly MenuItem[]; quiet?: boolean }>();

function take(item: MenuItem): void {
  if ("act" in item) return item.act();
  const link = document.createElement("a");
  link.href = item.href;
  link.download = "";
  link.click();
}
</script>

<template>
  <ElDropdown trigger="click" placement="bottom-end" @command="take">
    <ElButton class="act" :class="{ quiet }">{{ label }} <span aria-hidden="true">▾</span></ElButton>
    <template #dropdown>
      <ElDropdownMenu>
        <ElDropdownItem v-for="item in items" :key="item.label" :command="item">{{
          item.label
        }}</ElDropdownItem>
      </ElDropdownMenu>
    </template>
  </ElDropdown>
</template>

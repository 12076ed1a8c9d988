/** The application on its page. */
import { VueQueryPlugin } from "@tanstack/vue-query";
import { createApp } from "vue";
import App from "./App.vue";
import { FreshQueryClient } from "./api/queryClient";
import { i18n } from "./i18n/i18n";
import { router } from "./router";

export function start(): void {
  createApp(App)
    .use(i18n)
    .use(router)
    .use(VueQueryPlugin, { queryClient: new FreshQueryClient() })
    .mount("#app");
}

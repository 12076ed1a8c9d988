import "@fontsource-variable/archivo/standard.css";
import "element-plus/es/components/checkbox/style/css";
import "element-plus/es/components/date-picker/style/css";
import "element-plus/es/components/option-group/style/css";
import "element-plus/es/components/slider/style/css";
import "element-plus/es/components/time-picker/style/css";
import "element-plus/es/components/dialog/style/css";
import "element-plus/es/components/button/style/css";
import "element-plus/es/components/input-number/style/css";
import "element-plus/es/components/input/style/css";
import "element-plus/es/components/message/style/css";
import "element-plus/es/components/option/style/css";
import "element-plus/es/components/segmented/style/css";
import "element-plus/es/components/select/style/css";
import "element-plus/es/components/switch/style/css";
import "element-plus/es/components/tab-pane/style/css";
import "element-plus/es/components/tabs/style/css";
import "element-plus/es/components/tooltip/style/css";
import "./theme/tokens.css";
import "./theme/base.css";
import "./theme/element.css";
import { speak } from "./i18n/i18n";
import { register } from "./offline/register";

// Every file says its sentences in the language there is when it is loaded; English where that cannot be had.
void speak()
  .catch(() => undefined)
  .then(() => import("./start"))
  .then((app) => app.start());

// Where the browser allows it the day's steps stay readable without the server, after a reload as well.
if (import.meta.env.PROD && "serviceWorker" in navigator) {
  register(
    navigator.serviceWorker,
    location.origin,
    () => performance.getEntriesByType("resource").map((e) => e.name),
    (url) => fetch(url),
  ).catch(() => undefined);
}

import { createRouter, createWebHistory } from "vue-router";
import { t } from "./i18n/i18n";

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: "/", name: "shelf", component: () => import("./stages/shelf/ShelfPage.vue") },
    {
      path: "/project/:project(\\d+)",
      component: () => import("./stages/ProjectFrame.vue"),
      children: [
        { path: "", redirect: (to) => ({ name: "list", params: to.params }) },
        { path: "draw", name: "draw", component: () => import("./stages/draw/DrawPage.vue") },
        { path: "list", name: "list", component: () => import("./stages/list/ListPage.vue") },
        { path: "buy", name: "buy", component: () => import("./stages/buy/BuyPage.vue") },
        { path: "boards/:board?", name: "boards", component: () => import("./stages/boards/BoardsPage.vue") },
        { path: "layout", name: "layout", component: () => import("./stages/layout/LayoutPage.vue") },
        { path: "mill", name: "mill", component: () => import("./stages/mill/MillPage.vue") },
        { path: "books", name: "books", component: () => import("./stages/books/BooksPage.vue") },
      ],
    },
    {
      path: "/project/:project(\\d+)/machine",
      name: "machine",
      component: () => import("./stages/mill/MachinePage.vue"),
    },
    {
      path: "/project/:project(\\d+)/chalk",
      name: "chalk",
      component: () => import("./stages/layout/ChalkPage.vue"),
    },
    {
      path: "/project/:project(\\d+)/survey",
      name: "survey",
      component: () => import("./stages/boards/QuickSurvey.vue"),
    },
    {
      path: "/project/:project(\\d+)/aisle",
      name: "aisle",
      component: () => import("./stages/buy/aisle/AislePage.vue"),
    },
    {
      path: "/workshop/:workshop(\\d+)?",
      name: "workshop",
      component: () => import("./stages/workshop/WorkshopPage.vue"),
    },
    { path: "/stock", name: "stock", component: () => import("./stages/stock/StockPage.vue") },
    { path: "/:rest(.*)*", redirect: "/" },
  ],
  scrollBehavior: (_to, _from, saved) => saved ?? { top: 0 },
});

const WORDS: Record<string, string> = {
  shelf: t("The shelf"),
  layout: t("Lay out"),
  survey: t("In the yard"),
  aisle: t("In the aisle"),
  stock: t("Stock room"),
};

/** What the window is called: the stage first, so that tabs can be told apart. */
router.afterEach((to) => {
  const name = String(to.name ?? "");
  const word = WORDS[name] ?? name.charAt(0).toUpperCase() + name.slice(1);
  document.title = word ? t("{word} · Vivid Plank", { word }) : "Vivid Plank";
});

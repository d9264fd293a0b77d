import { t } from "@/language";
import { remember } from "@/search/recent";
import { startAddress } from "@/starred/starred";
import { useSession } from "@/shell/session";
import { createRouter, createWebHistory } from "vue-router";

declare module "vue-router" {
  interface RouteMeta {
    title?: string;
    /** Reached without an account. */
    open?: boolean;
    /** Without the rooms beside it. */
    bare?: boolean;
  }
}

/** The console's rooms. The service answers the same addresses with the console's page (ConsolePages). */
export const router = createRouter({
  history: createWebHistory(),
  // What is looked at on a page changes its address, but not where one is on it.
  scrollBehavior: (to, from, saved) => saved ?? (to.path === from.path ? false : { top: 0 }),
  routes: [
    // The guard below leads on to the page that the person starts with.
    { path: "/", component: () => import("./now/NowRoom.vue"), meta: { title: t("Now") } },
    { path: "/sign-in", component: () => import("./shell/SignIn.vue"), meta: { title: t("Sign in"), open: true } },
    {
      path: "/first-visit",
      component: () => import("./shell/FirstVisit.vue"),
      meta: { title: t("First visit"), open: true },
    },
    {
      path: "/recovery",
      component: () => import("./shell/FirstVisit.vue"),
      props: { recovery: true },
      meta: { title: t("New password"), open: true },
    },
    {
      path: "/reset",
      component: () => import("./shell/ResetPage.vue"),
      meta: { title: t("New password"), open: true },
    },
    {
      path: "/acknowledge",
      component: () => import("./alerts/AcknowledgePage.vue"),
      meta: { title: t("Acknowledge"), open: true },
    },
    { path: "/welcome", component: () => import("./shell/WelcomePage.vue"), meta: { title: t("Welcome"), open: true } },
    {
      path: "/shared/:token",
      component: () => import("./dashboards/SharedPage.vue"),
      props: true,
      meta: { title: t("Shared dashboard"), open: true, bare: true },
    },
    { path: "/now", component: () => import("./now/NowRoom.vue"), meta: { title: t("Now") } },
    { path: "/places", component: () => import("./places/PlacesRoom.vue"), meta: { title: t("Places") } },
    {
      path: "/places/:id",
      component: () => import("./places/PlacePage.vue"),
      props: true,
      meta: { title: t("Place") },
    },
    {
      path: "/places/:id/table",
      component: () => import("./points/PointTablePage.vue"),
      props: true,
      meta: { title: t("Points as a table") },
    },
    {
      path: "/points/:id",
      component: () => import("./points/PointPage.vue"),
      props: true,
      meta: { title: t("Point") },
    },
    { path: "/alerts", component: () => import("./alerts/AlertsRoom.vue"), meta: { title: t("Alerts") } },
    {
      path: "/alerts/:id",
      component: () => import("./alerts/AlertPage.vue"),
      props: true,
      meta: { title: t("Alert") },
    },
    {
      path: "/dashboards",
      component: () => import("./dashboards/DashboardsRoom.vue"),
      meta: { title: t("Dashboards") },
    },
    {
      path: "/dashboards/wall",
      component: () => import("./dashboards/WallPage.vue"),
      meta: { title: t("Wall"), bare: true },
    },
    {
      path: "/dashboards/:id",
      component: () => import("./dashboards/DashboardPage.vue"),
      props: true,
      meta: { title: t("Dashboard") },
    },
    { path: "/fleet", redirect: "/fleet/gateways" },
    {
      path: "/fleet/:tab(gateways|inlets|outlets|devices|health|frames|models|workbench)",
      component: () => import("./fleet/FleetRoom.vue"),
      props: true,
      meta: { title: t("Fleet") },
    },
    {
      path: "/fleet/devices/:id",
      component: () => import("./devices/DevicePage.vue"),
      props: true,
      meta: { title: t("Device") },
    },
    {
      path: "/fleet/gateways/:id",
      component: () => import("./gateways/GatewayPage.vue"),
      props: true,
      meta: { title: t("Gateway") },
    },
    {
      path: "/fleet/inlets/:id",
      component: () => import("./inlets/InletPage.vue"),
      props: true,
      meta: { title: t("Inlet") },
    },
    { path: "/fleet/labels", component: () => import("./devices/LabelsPage.vue"), meta: { title: t("Labels") } },
    { path: "/limits", component: () => import("./limits/LimitsRoom.vue"), meta: { title: t("Limits") } },
    { path: "/packs", component: () => import("./packs/PacksRoom.vue"), meta: { title: t("Packs") } },
    { path: "/people", component: () => import("./people/PeopleRoom.vue"), meta: { title: t("People") } },
    { path: "/people/trail", component: () => import("./people/TrailRoom.vue"), meta: { title: t("Trail") } },
    {
      path: "/records/compare",
      component: () => import("./records/CompareRoom.vue"),
      meta: { title: t("Compare") },
    },
    { path: "/records", component: () => import("./records/RecordsRoom.vue"), meta: { title: t("Records") } },
    { path: "/settings", redirect: "/settings/appearance" },
    {
      path: "/settings/:section(appearance|account|notices|tokens|mail|text|life-sign|cameras|radio|about)",
      component: () => import("./settings/SettingsRoom.vue"),
      props: true,
      meta: { title: t("Settings") },
    },
    { path: "/guide", redirect: "/guide/first-day" },
    {
      path: "/guide/:page",
      component: () => import("./guide/GuideRoom.vue"),
      props: true,
      meta: { title: t("Guide"), open: true },
    },
    {
      path: "/:rest(.*)*",
      component: () => import("./shell/NoSuchPage.vue"),
      meta: { title: t("No such page"), open: true },
    },
  ],
});

router.beforeEach(async (to) => {
  const session = useSession();
  if (to.meta.open || session.person || (await session.resumeWhenThere())) {
    return to.path === "/" ? { path: startAddress(), replace: true } : true;
  }
  return session.setupNeeded
    ? "/first-visit"
    : { path: "/sign-in", query: ["/", "/now"].includes(to.path) ? {} : { then: to.fullPath } };
});

router.afterEach((to) => {
  remember(to.path);
  document.title = (to.meta.title ?? "") + " · Open Pasture";
});

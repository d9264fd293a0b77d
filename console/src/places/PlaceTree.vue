<script setup lang="ts">
import { t } from "@/language";
import FenceMark from "@/look/FenceMark.vue";
import { usePoints } from "@/points/points";
import { usePlaces } from "./places";

/** What lies below a place, all the way down. */
const { parent } = defineProps<{ parent: string | null }>();
const places = usePlaces();
const points = usePoints();
</script>

<template>
  <ul :class="{ top: parent === null }">
    <li v-for="place in places.children(parent)" :key="place.id">
      <RouterLink :to="`/places/${place.id}`" class="place" :class="place.kind">
        <span class="name"
          >{{ place.name }} <span v-if="place.assetKind" class="soft small">{{ place.assetKind }}</span></span
        >
        <span v-if="place.openAlerts" class="soft small">{{
          t("{n} open alert | {n} open alerts", { n: place.openAlerts })
        }}</span>
        <FenceMark :severity="points.severities.get(place.id) ?? null" />
      </RouterLink>
      <PlaceTree v-if="places.children(place.id).length" :parent="place.id" />
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding-left: 1.1rem;
  border-left: 1px solid var(--line);
}
ul.top {
  padding-left: 0;
  border: 0;
}
.place {
  display: flex;
  align-items: center;
  gap: 0.75rem;
  padding: 0.45rem 0.4rem;
  color: inherit;
  text-decoration: none;
  border-radius: var(--radius);
}
.place:hover {
  background: var(--moss-soft);
}
.name {
  flex: 1;
}
.site > .name {
  font-weight: 680;
  font-size: 1.1rem;
}
.area > .name {
  font-weight: 580;
}
@media (pointer: coarse) {
  .place {
    min-height: 44px;
  }
}
</style>

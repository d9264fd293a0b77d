<script setup lang="ts">
import { t } from "@/language";
import EmptyState from "@/look/EmptyState.vue";
import { useSession } from "@/shell/session";
import { computed, ref } from "vue";
import PlaceForm from "./PlaceForm.vue";
import { usePlaces } from "./places";
import PlaceTree from "./PlaceTree.vue";

const places = usePlaces();
const session = useSession();
const making = ref(false);
const mayMake = computed(() => session.owner || places.editable.length > 0);
</script>

<template>
  <div class="page">
    <header class="page-head">
      <h1>{{ t("Places") }}</h1>
      <el-button v-if="mayMake" type="primary" @click="making = true">{{ t("Add a place") }}</el-button>
    </header>
    <section class="sheet">
      <PlaceTree v-if="places.places.length" :parent="null" />
      <EmptyState v-else :title="t('No places yet')">
        {{
          session.owner
            ? t("Begin with a site: a plant, a farm, a station.")
            : t("Nobody has given you a right on a site yet.")
        }}
      </EmptyState>
    </section>
    <PlaceForm v-if="making" @close="making = false" />
  </div>
</template>

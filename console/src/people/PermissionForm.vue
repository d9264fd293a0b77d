<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Group, Person, Right } from "@/api/types";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import { usePlaces } from "@/places/places";
import { computed, reactive } from "vue";
import { RIGHT_CHOICES } from "./rights";

/** Gives a person who is here already, or a group, a permission on a place. */
const { person, group } = defineProps<{ person?: Person; group?: Group }>();
const emit = defineEmits<{ close: [] }>();
const places = usePlaces();
const targets = computed(() => places.places.filter((place) => place.right === "manage"));
const form = reactive<{ right: Right; targetId: string }>({ right: "look", targetId: targets.value[0]?.id ?? "" });
const name = computed(() => person?.name ?? group?.name ?? "");
const { busy, error, run } = useAction();

async function save() {
  const saved = await run(
    () =>
      group
        ? api.post(`groups/${group.id}/grants`, form)
        : api.post("grants", { ...form, personName: person?.name ?? "" }),
    t("The permission is saved."),
  );
  if (saved) {
    emit("close");
  }
}
</script>

<template>
  <FormDialog
    :title="t('Permission for {name}', { name })"
    :error="error"
    :busy="busy"
    :disabled="!form.targetId"
    @save="save"
    @close="emit('close')"
  >
    <el-form-item :label="t('Place')" for="permission-place">
      <el-select id="permission-place" v-model="form.targetId" filterable :aria-label="t('Place')">
        <el-option v-for="place in targets" :key="place.id" :value="place.id" :label="places.label(place)" />
      </el-select>
    </el-form-item>
    <el-form-item :label="t('Permission')" for="permission-right">
      <el-select id="permission-right" v-model="form.right" :aria-label="t('Permission')">
        <el-option v-for="[right, label] in RIGHT_CHOICES" :key="right" :value="right" :label="label" />
      </el-select>
    </el-form-item>
    <p class="soft small">{{ t("It replaces a permission on the same place, and applies to everything in it.") }}</p>
  </FormDialog>
</template>

<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Group, Person } from "@/api/types";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import { useVersion } from "@/look/version";
import { reactive } from "vue";

/** Creates a group of people, or changes its name and who is in it. */
const { group, people } = defineProps<{ group?: Group; people: Person[] }>();
const emit = defineEmits<{ close: [] }>();
const form = reactive({ name: group?.name ?? "", memberIds: group?.members.map((member) => member.id) ?? [] });
const version = useVersion(group && "groups/" + group.id);
const { busy, error, run } = useAction();

async function save() {
  const saved = await run(
    async () => (group ? api.put(`groups/${group.id}`, form, await version()) : api.post("groups", form)),
    t("The group is saved."),
  );
  if (saved) {
    emit("close");
  }
}
</script>

<template>
  <FormDialog
    :title="group ? t('Group {name}', { name: group.name }) : t('New group')"
    :error="error"
    :busy="busy"
    :disabled="!form.name.trim()"
    @save="save"
    @close="emit('close')"
  >
    <el-form-item :label="t('Name')" for="group-name"
      ><el-input id="group-name" v-model="form.name" maxlength="80"
    /></el-form-item>
    <el-form-item :label="t('Members')" for="group-members">
      <el-select id="group-members" v-model="form.memberIds" multiple filterable :aria-label="t('Members')">
        <el-option v-for="person in people" :key="person.id" :value="person.id" :label="person.name" />
      </el-select>
    </el-form-item>
    <p class="soft small">
      {{ t("Members have every permission of the group, from now on and for as long as they are in it.") }}
    </p>
  </FormDialog>
</template>

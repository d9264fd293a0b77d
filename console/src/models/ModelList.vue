<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { DeviceModel } from "@/api/types";
import { useAction } from "@/look/act";
import EmptyState from "@/look/EmptyState.vue";
import { useLoad } from "@/look/load";
import ConfirmButton from "@/look/ConfirmButton.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import { useVersion } from "@/look/version";
import { usePlaces } from "@/places/places";
import { ref } from "vue";
import { exampleModel } from "./exampleModel";

const places = usePlaces();
const { data: models, error, load } = useLoad(() => api.get<DeviceModel[]>("models"));
const text = ref("");
/** The model that is edited, with how it was when that began; none for a new one. */
const editing = ref<{ model?: DeviceModel; version: () => Promise<string | undefined> }>();
const action = useAction();

function begin(model?: DeviceModel) {
  editing.value = { model, version: useVersion(model && "models/" + model.id) };
  text.value = JSON.stringify(model ?? exampleModel, null, 2);
}

async function read(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0];
  if (file) {
    text.value = await file.text();
  }
}

async function save() {
  const ok = await action.run(async () => {
    let body: unknown;
    try {
      body = JSON.parse(text.value);
    } catch (problem) {
      throw new Error(t("This is no JSON: {message}", { message: (problem as Error).message }), { cause: problem });
    }
    const before = editing.value?.model;
    await (before ? api.put("models/" + before.id, body, await editing.value?.version()) : api.post("models", body));
    await load();
  }, t("Saved."));
  if (ok) {
    editing.value = undefined;
  }
}

async function remove(model: DeviceModel) {
  if (await action.run(() => api.remove("models/" + model.id), t("{name} is removed.", { name: model.name }))) {
    await load();
  }
}
</script>

<template>
  <section class="sheet">
    <div class="sheet-head">
      <h2>{{ t("Device models") }}</h2>
      <el-button v-if="places.editable.length" @click="begin()">{{ t("Add a model") }}</el-button>
    </div>
    <p class="soft small">
      {{ t("A model says how a kind of device is read. What is set on it holds for all its devices.") }}
    </p>
    <ProblemNote :error="error" />
    <ProblemNote v-if="!editing" :error="action.error.value" />
    <table v-if="models?.length" class="rows cards">
      <thead>
        <tr>
          <th>{{ t("Model") }}</th>
          <th>{{ t("Every") }}</th>
          <th>{{ t("Channels") }}</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="model in models" :key="model.id">
          <td>
            <strong>{{ model.name }}</strong>
            <div class="soft small">{{ model.description }}</div>
          </td>
          <td>{{ model.intervalSeconds }} s</td>
          <td class="small wide">
            {{ model.channels.map((one) => `${one.title} (${one.unit || t("no unit")})`).join(", ") }}
          </td>
          <td>
            <template v-if="places.editable.length">
              <el-button link type="primary" @click="begin(model)">{{ t("Change") }}</el-button>
              <ConfirmButton
                :says="t('Remove {name}? A model that devices use stays.', { name: model.name })"
                link
                @confirm="remove(model)"
              />
            </template>
          </td>
        </tr>
      </tbody>
    </table>
    <EmptyState v-else-if="models" :title="t('No models yet')">{{
      t("Add one from a file, or begin with the example.")
    }}</EmptyState>
    <el-dialog
      :model-value="editing !== undefined"
      :title="editing?.model ? t('Change this model') : t('Add a model')"
      @close="editing = undefined"
    >
      <p class="soft small">
        {{ t("Where each channel lies in the frame, and what it means. A file may be loaded instead.") }}
      </p>
      <input type="file" accept="application/json,.json" :aria-label="t('Model file')" @change="read" />
      <el-input v-model="text" type="textarea" :rows="18" class="mono" :aria-label="t('Model as JSON')" />
      <ProblemNote :error="action.error.value" />
      <template #footer>
        <el-button @click="editing = undefined">{{ t("Cancel") }}</el-button>
        <el-button type="primary" :loading="action.busy.value" @click="save">{{ t("Save") }}</el-button>
      </template>
    </el-dialog>
  </section>
</template>

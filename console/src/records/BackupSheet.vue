<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Backup } from "@/api/types";
import { useAction } from "@/look/act";
import { moment } from "@/look/clock";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import CheckButton from "./CheckButton.vue";
import { bytes, count } from "./amounts";
import { ref } from "vue";

/** Backups: make, check, put back, remove. */
const { data, error: loadError, load } = useLoad(() => api.get<{ folder: string; backups: Backup[] }>("backups"));
const restoring = ref<Backup>();
const removing = ref<Backup>();
const restarting = ref(false);
const { busy, error, run } = useAction();

async function make() {
  await run(() => api.post("backups"), t("The backup is made."));
  await load();
}

async function remove() {
  const name = removing.value?.name;
  removing.value = undefined;
  await run(() => api.remove(`backups/${name}`), t("The backup is removed."));
  await load();
}

async function restore() {
  const name = restoring.value?.name;
  restarting.value = await run(() => api.post(`backups/${name}/restore`));
  restoring.value = undefined;
  if (restarting.value) {
    await untilItIsBack();
    window.location.assign("/now");
  }
}

/** The service stops, puts the backup in place, and starts again. */
async function untilItIsBack() {
  let wasGone = false;
  for (let i = 0; i < 120; i++) {
    await new Promise((done) => window.setTimeout(done, 1000));
    const answers = await fetch("/actuator/health").then(
      (response) => response.ok,
      () => false,
    );
    wasGone ||= !answers;
    if (answers && (wasGone || i > 20)) {
      return;
    }
  }
}
</script>

<template>
  <section class="sheet">
    <div class="sheet-head">
      <h2>{{ t("Backups") }}</h2>
      <el-button type="primary" :loading="busy" @click="make">{{ t("Back up now") }}</el-button>
    </div>
    <ProblemNote :error="loadError ?? error" />
    <p v-if="restarting" role="status">
      {{ t("The service starts again with the backup; this page comes back by itself …") }}
    </p>
    <table v-if="data?.backups.length" class="rows cards">
      <thead>
        <tr>
          <th>{{ t("Made") }}</th>
          <th>{{ t("Readings") }}</th>
          <th>{{ t("Room") }}</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="backup in data.backups" :key="backup.name">
          <td>{{ moment(backup.at) }}</td>
          <td :data-name="t('readings')">{{ count(backup.readings) }}</td>
          <td>{{ bytes(backup.bytes) }}</td>
          <td>
            <div class="row">
              <CheckButton :path="`backups/${backup.name}/check`" :label="t('Check')" />
              <el-button @click="restoring = backup">{{ t("Put back …") }}</el-button>
              <el-button @click="removing = backup">{{ t("Remove …") }}</el-button>
            </div>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else-if="data" class="soft">{{ t("None yet. A backup is made while readings go on coming in.") }}</p>
    <p v-if="data" class="soft small">
      {{ t("On the service's machine in") }} <span class="mono">{{ data.folder }}</span>{{
        t(". A backup holds the key of all secrets: copy it to another disk, where nobody else can read it.")
      }}
    </p>
    <el-dialog :model-value="!!restoring" :title="t('Put this backup back')" @close="restoring = undefined">
      <p v-if="restoring">
        {{
          t(
            "The backup of {moment} is checked, then the service stops, puts it in the place of the records and starts again. What is here now is moved aside on the service's machine, not removed. What came in since the backup is not seen any more, and everybody has to sign in again.",
            { moment: moment(restoring.at) },
          )
        }}
      </p>
      <template #footer>
        <el-button @click="restoring = undefined">{{ t("Cancel") }}</el-button>
        <el-button type="danger" :loading="busy" @click="restore">{{ t("Put it back") }}</el-button>
      </template>
    </el-dialog>
    <el-dialog :model-value="!!removing" :title="t('Remove this backup')" @close="removing = undefined">
      <p v-if="removing">
        {{
          t("The backup of {moment} is removed from the disk. This cannot be undone.", { moment: moment(removing.at) })
        }}
      </p>
      <template #footer>
        <el-button @click="removing = undefined">{{ t("Cancel") }}</el-button>
        <el-button type="danger" :loading="busy" @click="remove">{{ t("Remove") }}</el-button>
      </template>
    </el-dialog>
  </section>
</template>

<style scoped>
.mono {
  overflow-wrap: anywhere;
}
</style>

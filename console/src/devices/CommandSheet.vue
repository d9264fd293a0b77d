<script setup lang="ts">
import { said, t } from "@/language";
import { api } from "@/api/http";
import { onChanged } from "@/api/live";
import type { Command, Device, DeviceModel, DeviceSetting } from "@/api/types";
import { useAction } from "@/look/act";
import { age, every, now } from "@/look/clock";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { computed, reactive, ref } from "vue";
import { hexProblem } from "@/frames/hex";
import { modeLasts, months } from "./power";

/** What a device is wanted to keep or do: wanted, sent, acknowledged, failed. */
const { device, model } = defineProps<{ device: Device; model?: DeviceModel }>();
const places = usePlaces();
const { data: commands, load } = useLoad(() => api.get<Command[]>(`devices/${device.id}/commands`));
const { busy, error, run } = useAction();
const values = reactive<Record<string, number | undefined>>({});
const raw = reactive({ open: false, port: 1, payload: "", confirmed: true });
onChanged(["commands"], load);
every(10, () => void load());

const mayOperate = computed(() => places.may("operate", device.placeId));
const settings = computed(() => model?.settings ?? []);
const when = computed(() =>
  model?.listensAlways
    ? t("It listens always, and is sent things at once.")
    : t("It listens only after it has sent: things wait until then."),
);
const payloadProblem = computed(() => {
  const clean = raw.payload.replace(/\s/g, "");
  return clean.length % 2 ? t("two hex digits for each byte") : hexProblem(clean, clean.length);
});

/** The newest command for a setting, and the newest value that the device acknowledged. */
const newest = (name: string) => commands.value?.find((one) => one.setting === name && one.state !== "cancelled");
const kept = (name: string) => commands.value?.find((one) => one.setting === name && one.state === "acknowledged");

function life(setting: DeviceSetting): string {
  const value = values[setting.name];
  return setting.usualInterval && value && model?.power ? months(model.power, device.batteryPercent, value) : "";
}

async function want(body: object) {
  return run(async () => {
    await api.post(`devices/${device.id}/commands`, body);
    await load();
  });
}

async function cancel(command: Command) {
  await run(async () => {
    await api.remove("commands/" + command.id);
    await load();
  }, t("Taken back."));
}
const shown = ref(8);
</script>

<template>
  <section class="sheet">
    <h2>{{ t("Settings and commands") }}</h2>
    <p class="soft small">{{ when }}</p>
    <table v-if="settings.length" class="rows cards">
      <thead>
        <tr>
          <th>{{ t("Setting") }}</th>
          <th>{{ t("Has") }}</th>
          <th>{{ t("Wanted") }}</th>
          <th v-if="mayOperate">{{ t("New value") }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="setting in settings" :key="setting.name">
          <td>
            {{ setting.title }}
            <div class="soft small">
              {{ t("{min} to {max} {unit}", { min: setting.min, max: setting.max, unit: setting.unit }) }}
            </div>
            <div v-if="setting.inConfigurationMode" class="small mode">
              {{
                t(
                  "Only in its configuration mode, which drains the battery: switch it on at the device, and off again. {modeLasts}",
                  { modeLasts: modeLasts(model) },
                )
              }}
            </div>
          </td>
          <td>{{ kept(setting.name) ? `${kept(setting.name)?.value} ${setting.unit}` : t("not known") }}</td>
          <td>
            <template v-if="newest(setting.name)">
              {{ newest(setting.name)?.value }} {{ setting.unit }}
              <span class="state" :class="newest(setting.name)?.state">{{
                said(newest(setting.name)?.state ?? "")
              }}</span>
            </template>
            <template v-else>–</template>
          </td>
          <td v-if="mayOperate">
            <form class="row" @submit.prevent="want({ setting: setting.name, value: values[setting.name] })">
              <el-input-number
                v-model="values[setting.name]"
                :min="setting.min"
                :max="setting.max"
                :controls="false"
                :aria-label="setting.title"
              />
              <el-button native-type="submit" :disabled="values[setting.name] === undefined" :loading="busy">{{
                t("Send")
              }}</el-button>
            </form>
            <div v-if="life(setting)" class="small">{{ life(setting) }}</div>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else class="soft">{{ t("Its model names no settings.") }}</p>

    <details v-if="mayOperate" @toggle="raw.open = ($event.target as HTMLDetailsElement).open">
      <summary>{{ t("Send bytes") }}</summary>
      <el-form label-position="top" class="raw" @submit.prevent>
        <el-form-item :label="t('Port')" for="command-port"
          ><el-input-number
            id="command-port"
            v-model="raw.port"
            :min="1"
            :max="223"
            :controls="false"
            :aria-label="t('Port')"
        /></el-form-item>
        <el-form-item :label="t('Bytes, hex')" for="command-bytes" :error="payloadProblem"
          ><el-input id="command-bytes" v-model="raw.payload" class="mono" autocomplete="off"
        /></el-form-item>
        <el-form-item label=" "
          ><el-checkbox v-model="raw.confirmed">{{ t("it must acknowledge") }}</el-checkbox></el-form-item
        >
        <el-button
          :disabled="!raw.payload || payloadProblem !== ''"
          :loading="busy"
          @click="want({ port: raw.port, payload: raw.payload, confirmed: raw.confirmed })"
          >{{ t("Send") }}</el-button
        >
      </el-form>
    </details>
    <ProblemNote :error="error" />

    <h3 v-if="commands?.length">{{ t("What was sent") }}</h3>
    <div v-for="command in commands?.slice(0, shown)" :key="command.id" class="command">
      <strong>{{ command.what }}</strong>
      <span class="state" :class="command.state">{{ said(command.state) }}</span>
      <span class="soft small">{{ command.person }}, {{ age(command.wantedAt, now) }}</span>
      <el-button v-if="command.state === 'wanted' && mayOperate" link type="primary" @click="cancel(command)">{{
        t("Take back")
      }}</el-button>
      <el-button
        v-if="command.state === 'failed' && mayOperate"
        link
        type="primary"
        @click="
          want(
            command.setting
              ? { setting: command.setting, value: command.value }
              : { port: command.port, payload: command.payload, confirmed: command.confirmed },
          )
        "
        >{{ t("Try again") }}</el-button
      >
      <div class="soft small">{{ command.reason }}</div>
    </div>
    <el-button v-if="(commands?.length ?? 0) > shown" link type="primary" @click="shown += 20">{{
      t("Load older entries")
    }}</el-button>
  </section>
</template>

<style scoped>
.command {
  padding: 0.4rem 0;
  border-bottom: 1px solid var(--line);
}
.command > * {
  margin-right: 0.6rem;
}
.state {
  font-size: 0.85rem;
  padding: 0 0.4rem;
  border: 1px solid var(--line-strong);
  border-radius: 999px;
}
.acknowledged {
  background: var(--moss-soft);
}
.failed {
  color: var(--warning);
  border-color: var(--warning);
}
.wanted,
.sent {
  color: var(--heather);
  border-color: var(--heather);
}
.mode {
  color: var(--warning);
}
.raw {
  display: flex;
  flex-wrap: wrap;
  gap: 0 1rem;
  align-items: center;
}
h3 {
  margin: 1rem 0 0.25rem;
  font-size: 1rem;
}
</style>

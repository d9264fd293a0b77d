<script setup lang="ts">
import { said, t } from "@/language";
import { api } from "@/api/http";
import { onChanged, onLive } from "@/api/live";
import type { Device, Frame, Inlet, Stranger, Trial } from "@/api/types";
import { useAction } from "@/look/act";
import { age, every, moment, now } from "@/look/clock";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import ShownOnce from "@/look/ShownOnce.vue";
import { usePlaces } from "@/places/places";
import { computed, ref, watch } from "vue";
import { useRouter } from "vue-router";
import AdmitForm from "./AdmitForm.vue";
import FrameCard from "@/frames/FrameCard.vue";
import InletForm from "./InletForm.vue";
import { hasToken, isPolled } from "./inletForms";
import PollSheet from "./PollSheet.vue";
import StateWord from "@/devices/StateWord.vue";

/** The page of an inlet: how it is, who is heard there and not known, what came by it and what could not be used. */
const { id } = defineProps<{ id: string }>();
const FRAMES = 20;
const places = usePlaces();
const router = useRouter();
const changing = ref(false);
const removing = ref(false);
const admitting = ref<Stranger>();
const typed = ref("");
const trial = ref<Trial>();
const token = ref("");
const { busy, error, run } = useAction();
const attempt = useAction();
const { data: inlet, error: problem, load } = useLoad(() => api.get<Inlet>("inlets/" + id));
const strangers = useLoad(() => api.get<Stranger[]>(`inlets/${id}/strangers`));
const devices = useLoad(async () => (await api.get<Device[]>("devices")).filter((one) => one.inletId === id));
const frames = useLoad(() => api.get<Frame[]>(`frames?inlet=${id}&limit=${FRAMES}`));
const all = () => Promise.all([load(), strangers.load(), devices.load()]);
watch(
  () => id,
  () => ((trial.value = undefined), (token.value = ""), void all(), void frames.load()),
);
onChanged(["registry", "inlet", "strangers"], all);
onLive<Frame>(
  "frame",
  (frame) => frame.inletId === id && (frames.data.value = [frame, ...(frames.data.value ?? [])].slice(0, FRAMES)),
);
every(10, () => void all());
const mayEdit = computed(() => places.may("edit", inlet.value?.siteId ?? null));

const pause = () =>
  run(() => api.post(`inlets/${id}/pause`).then(load), t("Paused: nothing is taken until it is resumed."));
const resume = () => run(() => api.post(`inlets/${id}/resume`).then(load), t("It takes messages again."));

async function remove() {
  if (await run(() => api.remove("inlets/" + id), t("{name} is removed.", { name: inlet.value?.name }))) {
    await router.push("/fleet/inlets");
  }
  removing.value = false;
}

async function tryOut() {
  const text = typed.value.trim();
  const hex = inlet.value?.settings?.contents?.form === "bytes";
  const body = !text ? {} : hex ? { hex: text } : { text: typed.value };
  await attempt.run(async () => (trial.value = await api.post<Trial>(`inlets/${id}/try`, body)));
}

const look = () =>
  run(async () => {
    strangers.data.value = await api.post<Stranger[]>(`inlets/${id}/look`);
  }, t("Everybody was asked."));

async function makeToken() {
  await run(async () => (token.value = (await api.post<{ token: string }>(`inlets/${id}/token`)).token));
}
const origin = location.origin;
</script>

<template>
  <div v-if="inlet" class="page">
    <header class="page-head">
      <div>
        <p class="crumbs">
          <RouterLink to="/fleet/inlets">{{ t("Inlets") }}</RouterLink> / {{ inlet.siteName }}
        </p>
        <h1>{{ inlet.name }}</h1>
        <p class="row">
          <StateWord :state="inlet.state" /> <span class="soft">{{ said(inlet.reason) }} {{ inlet.address }}</span>
        </p>
      </div>
      <template v-if="mayEdit">
        <el-button v-if="inlet.state === 'paused'" type="primary" :loading="busy" @click="resume">{{
          t("Resume")
        }}</el-button>
        <el-button v-else :loading="busy" @click="pause">{{ t("Pause") }}</el-button>
        <el-button v-if="inlet.kind === 'bacnet-ip' && inlet.state !== 'paused'" :loading="busy" @click="look">{{
          t("Scan for devices")
        }}</el-button>
        <el-button @click="changing = true">{{ t("Change …") }}</el-button>
        <el-button @click="removing = true">{{ t("Remove …") }}</el-button>
      </template>
    </header>
    <ProblemNote :error="error" />

    <section v-if="strangers.data.value?.length" class="sheet heard">
      <h2>{{ t("Unregistered devices") }}</h2>
      <p class="soft small">
        {{
          inlet.kind === "bacnet-ip"
            ? t("They said that they are there, but no device has their number; they are not asked for anything.")
            : t("They send to this inlet, but no device has their address; nothing of theirs becomes a value.")
        }}
      </p>
      <table class="rows cards">
        <tbody>
          <tr v-for="one in strangers.data.value.slice(0, 20)" :key="one.address">
            <td class="mono once">{{ one.address }}</td>
            <td class="soft small">
              {{ t("{n} message | {n} messages", { n: one.count }) }},
              {{ age(one.lastHeard, now) }}
            </td>
            <td class="mono small wide newest">{{ one.newest }}</td>
            <td>
              <el-button v-if="mayEdit" type="primary" @click="admitting = one">{{ t("Register") }}</el-button>
            </td>
          </tr>
        </tbody>
      </table>
    </section>

    <section class="sheet">
      <dl class="facts">
        <div>
          <dt>{{ t("Last message") }}</dt>
          <dd>{{ age(inlet.lastAt, now) }}</dd>
        </div>
        <div>
          <dt>{{ t("Frames since the service started") }}</dt>
          <dd>{{ inlet.received }}</dd>
        </div>
        <div>
          <dt>{{ t("Could not be used") }}</dt>
          <dd>{{ t("{refused} refused, {lost} that made no frame", { refused: inlet.refused, lost: inlet.lost }) }}</dd>
        </div>
        <div v-if="inlet.settings?.keepEverySeconds">
          <dt>
            {{ t("Thinned out to one in {keepEverySeconds} s", { keepEverySeconds: inlet.settings.keepEverySeconds }) }}
          </dt>
          <dd>{{ t("{thinned} not kept", { thinned: inlet.thinned }) }}</dd>
        </div>
        <div v-if="inlet.settings?.contents">
          <dt>{{ t("Address of the sender") }}</dt>
          <dd class="mono">{{ inlet.settings.contents.address ?? t("in the names") }}</dd>
        </div>
      </dl>
      <template v-if="hasToken(inlet.kind) && mayEdit">
        <ShownOnce
          v-if="token"
          :value="inlet.kind === 'http-inbox' ? `${origin}/in/${token}` : token"
          :label="
            t('The new {secret}, shown only now; the one before works for a week more', {
              secret: inlet.kind === 'http-inbox' ? t('address') : t('password'),
            })
          "
        />
        <el-button v-else :loading="busy" class="token" @click="makeToken">{{ t("Make another token") }}</el-button>
      </template>
    </section>

    <PollSheet
      v-if="isPolled(inlet.kind)"
      :inlet-id="id"
      :may-operate="places.may('operate', inlet.siteId)"
      :can-let-go="inlet.kind === 'bacnet-ip'"
    />
    <section v-else class="sheet">
      <h2>{{ t("Devices") }}</h2>
      <table v-if="devices.data.value?.length" class="rows cards">
        <tbody>
          <tr v-for="device in devices.data.value" :key="device.id">
            <td>
              <RouterLink :to="`/fleet/devices/${device.id}`">{{ device.name }}</RouterLink>
            </td>
            <td class="mono small">{{ device.address }}</td>
            <td><StateWord :state="device.state" /></td>
            <td class="soft small">{{ age(device.lastHeard, now) }}</td>
          </tr>
        </tbody>
      </table>
      <p v-else class="soft">
        {{ t("No devices yet. Unregistered devices that send to this inlet are listed above.") }}
      </p>
    </section>

    <section class="sheet">
      <h2>{{ isPolled(inlet.kind) ? t("Poll now") : t("Try a message") }}</h2>
      <p v-if="isPolled(inlet.kind)" class="soft small">
        {{ t("Its devices are asked at once, out of turn; nothing is kept of what they answer.") }}
      </p>
      <p v-else class="soft small">
        {{
          t("{what}, or nothing for the newest that came. Nothing is kept of it.", {
            what:
              inlet.settings?.contents?.form === "bytes" ? t("Hex digits of what would come") : t("What would come"),
          })
        }}
      </p>
      <el-input
        v-if="!isPolled(inlet.kind)"
        v-model="typed"
        type="textarea"
        :rows="2"
        class="mono"
        :aria-label="t('Message to try')"
      />
      <el-button class="try" :loading="attempt.busy.value" @click="tryOut">{{
        isPolled(inlet.kind) ? t("Ask them") : t("Try it")
      }}</el-button>
      <ProblemNote :error="attempt.error.value" />
      <template v-if="trial">
        <p class="mono message">{{ trial.message }}</p>
        <table class="rows cards">
          <thead>
            <tr>
              <th>{{ t("Address") }}</th>
              <th>{{ t("Device") }}</th>
              <th>{{ t("Read") }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(part, i) in trial.parts" :key="i">
              <td class="mono">{{ part.address ?? "–" }}</td>
              <td>
                <RouterLink v-if="part.deviceId" :to="`/fleet/devices/${part.deviceId}`">{{
                  part.deviceName
                }}</RouterLink>
                <template v-else>–</template>
              </td>
              <td>
                <div class="mono">{{ part.values }}</div>
                <div v-if="part.identity" class="soft small">
                  {{ t("It says that it is {identity}", { identity: part.identity }) }}
                </div>
                <div v-if="part.problem" class="problem">{{ part.problem }}</div>
                <div v-if="part.proposal" class="soft small">
                  {{ t("Could be read as {example}", { example: part.proposal.example }) }}
                </div>
              </td>
            </tr>
          </tbody>
        </table>
      </template>
    </section>

    <section v-if="inlet.refusals.length" class="sheet">
      <h2>{{ t("What could not be used") }}</h2>
      <p v-for="(refusal, i) in inlet.refusals.slice(0, 12)" :key="i" class="small refusal">
        <span class="soft">{{ moment(refusal.time) }} {{ refusal.sender }}</span> {{ refusal.reason }}
      </p>
    </section>

    <section class="sheet">
      <h2>{{ t("Newest frames") }}</h2>
      <FrameCard v-for="frame in frames.data.value" :key="frame.id" :frame="frame" />
      <p v-if="frames.data.value?.length === 0" class="soft">{{ t("None yet.") }}</p>
    </section>

    <InletForm v-if="changing" :inlet="inlet" @close="((changing = false), all())" />
    <AdmitForm
      v-if="admitting"
      :inlet-id="id"
      :site-id="inlet.siteId"
      :address="admitting.address"
      :proposal="admitting.proposal"
      @close="((admitting = undefined), all())"
    />
    <el-dialog v-model="removing" :title="t('Remove this inlet')">
      <p>
        {{
          t("{name} is closed and forgotten, with its token. Devices that speak by it have to be removed first.", {
            name: inlet.name,
          })
        }}
      </p>
      <template #footer>
        <el-button @click="removing = false">{{ t("Cancel") }}</el-button>
        <el-button type="danger" @click="remove">{{ t("Remove {name}", { name: inlet.name }) }}</el-button>
      </template>
    </el-dialog>
  </div>
  <div v-else-if="problem" class="page">
    <ProblemNote :error="problem" />
    <p>
      <RouterLink to="/fleet/inlets">{{ t("All inlets") }}</RouterLink>
    </p>
  </div>
</template>

<style scoped>
.heard {
  border-color: var(--heather);
}
.newest,
.message {
  overflow-wrap: anywhere;
}
.token,
.try {
  margin-top: 0.75rem;
}
.problem {
  color: var(--warning);
}
.once {
  white-space: nowrap;
}
.refusal {
  margin: 0.25rem 0;
}
</style>

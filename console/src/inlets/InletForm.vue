<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Inlet } from "@/api/types";
import { useAction } from "@/look/act";
import ProblemNote from "@/look/ProblemNote.vue";
import { useVersion } from "@/look/version";
import SecretField from "@/look/SecretField.vue";
import ShownOnce from "@/look/ShownOnce.vue";
import { usePlaces } from "@/places/places";
import { computed, reactive, ref } from "vue";
import { useRouter } from "vue-router";
import { ADDRESSES, COMMON, fill, isPolled, KINDS, requestOf, startOf } from "./inletForms";

/** Makes an inlet, or changes one: where messages come from, and how they are opened. */
const { inlet } = defineProps<{ inlet?: Inlet }>();
const emit = defineEmits<{ close: [] }>();
const places = usePlaces();
const router = useRouter();
const sites = computed(() => places.editable.filter((place) => place.kind === "site"));
const siteId = ref(inlet?.siteId ?? sites.value[0]?.id ?? "");
const draft = reactive(startOf(inlet));
const token = ref("");
const made = ref<Inlet>();
const { busy, error, run } = useAction();
const version = useVersion(inlet && "inlets/" + inlet.id);

/** What mostly comes that way, unless it was set already. */
function usual() {
  if (!inlet) {
    draft.port = draft.kind === "bacnet-ip" ? 47_808 : 4_001;
  }
  const id =
    { mqtt: "topic", "own-broker": "topic", "http-inbox": "json", "http-fetch": "json" }[draft.kind as string] ??
    "lines";
  if (!inlet && COMMON.some((one) => one.id === draft.common)) {
    draft.common = id;
    fill(draft, id);
  }
}

async function save() {
  const ok = await run(async () => {
    const body = requestOf(draft, siteId.value);
    if (inlet) {
      await api.put("inlets/" + inlet.id, body, await version());
    } else {
      const answer = await api.post<{ inlet: Inlet; token: string | null }>("inlets", body);
      made.value = answer.inlet;
      token.value = answer.token ?? "";
    }
  }, t("Saved."));
  if (ok && !token.value) {
    await done();
  }
}

async function done() {
  emit("close");
  if (made.value) {
    await router.push("/fleet/inlets/" + made.value.id);
  }
}
const ready = computed(() => Boolean(draft.name && siteId.value));
const address = computed(() => location.origin + "/in/" + token.value);
</script>

<template>
  <el-dialog model-value :title="inlet ? t('Change {name}', { name: inlet.name }) : t('Make an inlet')" @close="done">
    <template v-if="token">
      <ShownOnce
        v-if="made?.kind === 'own-broker'"
        :value="token"
        :label="t('The password for senders; any user name goes with it. It is shown only now.')"
      />
      <ShownOnce v-else :value="address" :label="t('Senders post to this address. It is shown only now.')" />
      <p v-if="made?.kind === 'own-broker'" class="soft small">{{ made.address }}</p>
      <p v-else class="soft small">
        {{
          t("Or to {address} with the header “Authorization: Bearer …”.", {
            address: address.replace(/[^/]*$/, "").replace(/\/$/, ""),
          })
        }}
      </p>
    </template>
    <el-form v-else label-position="top" @submit.prevent="save">
      <el-form-item :label="t('Name')" for="inlet-name"
        ><el-input id="inlet-name" v-model="draft.name" autofocus :placeholder="t('Weather bridge')"
      /></el-form-item>
      <el-form-item :label="t('Site')" for="inlet-site">
        <el-select id="inlet-site" v-model="siteId" :aria-label="t('Site')"
          ><el-option v-for="site in sites" :key="site.id" :value="site.id" :label="site.name"
        /></el-select>
      </el-form-item>
      <el-form-item :label="t('How it works')" for="inlet-kind">
        <el-select id="inlet-kind" v-model="draft.kind" :aria-label="t('How it works')" @change="usual"
          ><el-option v-for="one in KINDS" :key="one.id" :value="one.id" :label="one.title"
        /></el-select>
      </el-form-item>
      <el-form-item
        v-if="draft.kind === 'tcp' || draft.kind === 'udp'"
        :label="t('Port of this machine')"
        for="inlet-port"
      >
        <el-input-number id="inlet-port" v-model="draft.port" :min="0" :max="65535" :controls="false" />
      </el-form-item>
      <div v-if="draft.kind === 'modbus-rtu-tcp'" class="row">
        <el-form-item :label="t('Serial server')" for="inlet-host"
          ><el-input id="inlet-host" v-model="draft.host" class="mono" placeholder="192.0.2.9"
        /></el-form-item>
        <el-form-item :label="t('Port')" for="inlet-host-port">
          <el-input-number id="inlet-host-port" v-model="draft.port" :min="1" :max="65535" :controls="false" />
        </el-form-item>
      </div>
      <div v-if="draft.kind === 'serial' || draft.kind === 'modbus-serial'" class="row">
        <el-form-item :label="t('Serial port')" for="inlet-device"
          ><el-input id="inlet-device" v-model="draft.device" class="mono"
        /></el-form-item>
        <el-form-item :label="t('Baud rate')" for="inlet-baud">
          <el-input-number id="inlet-baud" v-model="draft.baud" :min="50" :controls="false" />
        </el-form-item>
        <el-form-item :label="t('Parity')" for="inlet-parity">
          <el-select id="inlet-parity" v-model="draft.parity" :aria-label="t('Parity')" class="parity"
            ><el-option v-for="one in ['none', 'even', 'odd']" :key="one" :value="one"
          /></el-select>
        </el-form-item>
      </div>
      <el-form-item v-if="isPolled(draft.kind)" :label="t('Wait for an answer, ms')" for="inlet-timeout">
        <el-input-number id="inlet-timeout" v-model="draft.timeoutMillis" :min="20" :max="60000" :controls="false" />
      </el-form-item>
      <p v-if="isPolled(draft.kind)" class="soft small">
        {{
          t(
            "Then bring devices in with their address here: {address}. Their model has {layout}, and says how often they are asked.",
            {
              address: ADDRESSES[draft.kind],
              layout: draft.kind === "bacnet-ip" ? t("a list of objects") : t("a register map"),
            },
          )
        }}
      </p>
      <el-checkbox v-if="draft.kind === 'http-inbox'" v-model="draft.tellsSensors">{{
        t("Tell whoever posts which devices are registered here, for hubs that are to report just these")
      }}</el-checkbox>
      <p v-if="draft.kind === 'http-inbox'" class="soft small">
        {{ t("It gets an address of this service with a token in it, shown once when it is made.") }}
      </p>
      <template v-if="draft.kind === 'bacnet-ip'">
        <el-form-item
          :label="t('Where it is asked who is there, one address a line; nothing for everybody on the network')"
          for="inlet-look"
          ><el-input
            id="inlet-look"
            v-model="draft.lookAt"
            type="textarea"
            :rows="2"
            class="mono"
            placeholder="192.0.2.255"
        /></el-form-item>
        <el-form-item :label="t('UDP port to speak from; 0 for any')" for="inlet-own-port">
          <el-input-number id="inlet-own-port" v-model="draft.port" :min="0" :max="65535" :controls="false" />
        </el-form-item>
      </template>
      <p v-if="draft.kind === 'own-broker'" class="soft small">
        {{ t("Senders sign in with any name, and as password the token that is shown once when the inlet is made.") }}
      </p>
      <div v-if="draft.kind === 'mqtt'" class="row">
        <el-form-item :label="t('Broker')" for="inlet-broker" class="grow"
          ><el-input id="inlet-broker" v-model="draft.broker" class="mono" placeholder="mqtts://broker.example:8883"
        /></el-form-item>
        <el-form-item label="MQTT" for="inlet-version">
          <el-select id="inlet-version" v-model="draft.version" :aria-label="t('Version of MQTT')" class="parity">
            <el-option :value="5" label="5" /><el-option :value="3" label="3.1.1" />
          </el-select>
        </el-form-item>
      </div>
      <el-form-item
        v-if="draft.kind === 'mqtt' || draft.kind === 'own-broker'"
        :label="t('Topics, one in each line; {\'{\'}serial{\'}\'} names a part')"
        for="inlet-topics"
        ><el-input
          id="inlet-topics"
          v-model="draft.topics"
          type="textarea"
          :rows="2"
          class="mono"
          placeholder="farm/{serial}/state"
      /></el-form-item>
      <div v-if="draft.kind === 'mqtt'" class="row">
        <el-form-item :label="t('User name, if it needs one')" for="inlet-user"
          ><el-input id="inlet-user" v-model="draft.username" autocomplete="off"
        /></el-form-item>
        <SecretField
          id="inlet-password"
          v-model="draft.secret"
          :label="t('Password')"
          :placeholder="inlet ? t('as it is') : ''"
          class="grow"
        />
      </div>
      <template v-if="draft.kind === 'http-fetch'">
        <div class="row">
          <el-form-item :label="t('Address')" for="inlet-url" class="grow"
            ><el-input id="inlet-url" v-model="draft.url" class="mono"
          /></el-form-item>
          <el-form-item :label="t('Every … seconds')" for="inlet-every">
            <el-input-number id="inlet-every" v-model="draft.everySeconds" :min="1" :max="86400" :controls="false" />
          </el-form-item>
        </div>
        <el-checkbox v-model="draft.allowPrivate">{{ t("Allow local and private addresses") }}</el-checkbox>
        <div class="row">
          <el-form-item :label="t('Secret header, if it needs one')" for="inlet-secret-name"
            ><el-input id="inlet-secret-name" v-model="draft.secretName" class="mono" placeholder="Authorization"
          /></el-form-item>
          <SecretField
            id="inlet-secret"
            v-model="draft.secret"
            :label="t('Its value')"
            :placeholder="inlet ? t('as it is') : ''"
            class="grow"
          />
        </div>
      </template>
      <template v-if="!isPolled(draft.kind)">
        <el-form-item :label="t('Message format')" for="inlet-common">
          <el-select
            id="inlet-common"
            v-model="draft.common"
            :aria-label="t('Message format')"
            :placeholder="t('as set below')"
            @change="(id: string) => fill(draft, id)"
            ><el-option v-for="one in COMMON" :key="one.id" :value="one.id" :label="one.title"
          /></el-select>
        </el-form-item>
        <el-form-item v-if="draft.contents.form !== 'senml'" :label="t('Device address')" for="inlet-address">
          <el-input id="inlet-address" v-model="draft.contents.address" class="mono" />
          <span class="soft small">{{
            t("column:0, json:$.mac, bytes:0+2, topic:serial, header:x-device, sender, or fixed:mast")
          }}</span>
        </el-form-item>
        <details>
          <summary>{{ t("More: separator, parts, payload, time, signal, framing") }}</summary>
          <div class="more">
            <el-form-item v-if="draft.contents.form === 'text'" :label="t('Between columns')" for="inlet-separator"
              ><el-input id="inlet-separator" v-model="draft.contents.separator" class="mono"
            /></el-form-item>
            <el-form-item
              v-if="draft.contents.form === 'json'"
              :label="t('Path to the parts of each device')"
              for="inlet-each"
              ><el-input
                id="inlet-each"
                v-model="draft.contents.each"
                class="mono"
                :placeholder="t('the message is one part')"
            /></el-form-item>
            <el-form-item :label="t('Where the payload stands')" for="inlet-payload"
              ><el-input id="inlet-payload" v-model="draft.contents.payload" class="mono" :placeholder="t('all of it')"
            /></el-form-item>
            <el-form-item :label="t('Encoding')" for="inlet-encoding">
              <el-select id="inlet-encoding" v-model="draft.contents.encoding" clearable :aria-label="t('Encoding')">
                <el-option v-for="one in ['plain', 'hex', 'base64']" :key="one" :value="one" />
              </el-select>
            </el-form-item>
            <el-form-item :label="t('Where its time stands')" for="inlet-time"
              ><el-input id="inlet-time" v-model="draft.contents.time" class="mono" :placeholder="t('time of arrival')"
            /></el-form-item>
            <el-form-item :label="t('Where the signal stands')" for="inlet-signal"
              ><el-input id="inlet-signal" v-model="draft.contents.signal" class="mono" :placeholder="t('nowhere')"
            /></el-form-item>
            <el-form-item :label="t('Framing, as JSON')" for="inlet-framing" class="framing"
              ><el-input id="inlet-framing" v-model="draft.framing" type="textarea" :rows="2" class="mono"
            /></el-form-item>
          </div>
        </details>
      </template>
      <el-form-item
        :label="t('Keep a frame of each device every … seconds, unless much changed; empty for all')"
        for="inlet-keep"
      >
        <el-input-number id="inlet-keep" v-model="draft.keepEvery" :min="1" :max="86400" :controls="false" />
      </el-form-item>
      <ProblemNote :error="error" />
    </el-form>
    <template #footer>
      <el-button v-if="token" type="primary" @click="done">{{ t("Done") }}</el-button>
      <template v-else>
        <el-button @click="emit('close')">{{ t("Cancel") }}</el-button>
        <el-button type="primary" :loading="busy" :disabled="!ready" @click="save">{{
          inlet ? t("Save") : t("Make it")
        }}</el-button>
      </template>
    </template>
  </el-dialog>
</template>

<style scoped>
.more {
  display: grid;
  gap: 0 1rem;
  grid-template-columns: repeat(auto-fill, minmax(210px, 1fr));
  margin-top: 0.6rem;
}
.grow {
  flex: 1;
}
.parity {
  width: 6rem;
}
.framing {
  grid-column: 1 / -1;
}
</style>

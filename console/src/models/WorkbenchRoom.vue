<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { DeviceModel, Tried, Workbench } from "@/api/types";
import { useAction } from "@/look/act";
import { moment } from "@/look/clock";
import EmptyState from "@/look/EmptyState.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { useVersion } from "@/look/version";
import { usePlaces } from "@/places/places";
import { useSession } from "@/shell/session";
import { computed, ref, watch } from "vue";
import { exampleScript } from "./exampleScript";
import { layoutText } from "./layoutText";

/** The decoder workbench: a draft is tried on captured frames, channel beside byte, before it goes live. */
const places = usePlaces();
const session = useSession();
const models = useLoad(() => api.get<DeviceModel[]>("models"));
const versions = ref<DeviceModel[]>([]);
const modelId = ref("");
const way = ref<"layout" | "script">("layout");
const layout = ref("");
const script = ref("");
const typed = ref({ open: false, port: 1, payload: "" });
const result = ref<Workbench>();
const chosen = ref<Tried>();
const lit = ref("");
const { busy, error, run } = useAction();
const saving = useAction();
/** How the model was registered when its draft was begun. */
let version: () => Promise<string | undefined> = async () => undefined;
const model = computed(() => models.data.value?.find((one) => one.id === modelId.value));

/** What all sites share is for owners, what belongs to one for who edits it. */
const mayTry = computed(() => session.owner || (model.value?.siteId != null && places.may("edit", model.value.siteId)));

watch(models.data, (all) => (modelId.value ||= all?.[0]?.id ?? ""));
watch(model, (now) => now && take(now));

function take(from: DeviceModel) {
  layout.value = layoutText(from.layout);
  script.value = from.script ?? exampleScript;
  way.value = from.script ? "script" : "layout";
  result.value = undefined;
  chosen.value = undefined;
  void api.get<DeviceModel[]>(`models/${from.id}/versions`).then((found) => (versions.value = found));
  version = useVersion("models/" + from.id);
  if (mayTry.value) {
    void attempt();
  }
}

function draft() {
  try {
    return { layout: JSON.parse(layout.value) as unknown, script: way.value === "script" ? script.value : null };
  } catch (problem) {
    throw new Error(t("The layout is no JSON: {message}", { message: (problem as Error).message }), { cause: problem });
  }
}

async function attempt() {
  await run(async () => {
    const typedIn =
      typed.value.open && typed.value.payload ? { port: typed.value.port, payload: typed.value.payload } : {};
    result.value = await api.post<Workbench>("workbench", { modelId: modelId.value, ...draft(), ...typedIn });
    chosen.value = result.value.frames.find((one) => one.frameId === chosen.value?.frameId) ?? result.value.frames[0];
  });
}

async function save() {
  await saving.run(async () => {
    const body = { ...model.value, ...draft() };
    const saved = await api.put<DeviceModel>("models/" + modelId.value, body, await version());
    await models.load();
    take(saved);
  }, t("Saved: new frames are read by it. Frames that are stored can be read again on a device's page."));
}

const bytes = computed(() => chosen.value?.payload.match(/../g) ?? []);
const owner = (index: number) => chosen.value?.parts.find((part) => part.bytes.includes(index))?.channel ?? "";
const values = computed(() =>
  (chosen.value?.draft ?? "")
    .split(" ")
    .filter(Boolean)
    .map((pair) => ({ channel: pair.slice(0, pair.indexOf("=")), value: pair.slice(pair.indexOf("=") + 1) })),
);
const before = computed(
  () =>
    new Map(
      (chosen.value?.live ?? "")
        .split(" ")
        .map((pair) => [pair.slice(0, pair.indexOf("=")), pair.slice(pair.indexOf("=") + 1)]),
    ),
);
</script>

<template>
  <div class="stack">
    <section class="sheet">
      <div class="sheet-head">
        <h2>{{ t("Decoder workbench") }}</h2>
        <el-select v-model="modelId" filterable :aria-label="t('Device model')" class="pick">
          <el-option v-for="one in models.data.value" :key="one.id" :value="one.id" :label="one.name" />
        </el-select>
      </div>
      <EmptyState v-if="models.data.value?.length === 0" :title="t('No models yet')">{{
        t("Add one under Models; then its captured frames can be looked at here.")
      }}</EmptyState>
      <template v-else>
        <div class="row ways">
          <el-radio-group v-model="way" :aria-label="t('How frames are read')">
            <el-radio-button value="layout">{{ t("layout") }}</el-radio-button>
            <el-radio-button value="script">{{ t("maker's script") }}</el-radio-button>
          </el-radio-group>
          <span class="soft small">{{
            way === "layout"
              ? t("Says where each channel lies in the frame.")
              : t("A payload codec by LoRa Alliance TS013: decodeUplink(input). It reaches nothing but its input.")
          }}</span>
        </div>
        <el-input
          v-if="way === 'layout'"
          v-model="layout"
          type="textarea"
          :rows="14"
          class="mono"
          :aria-label="t('Layout as JSON')"
          spellcheck="false"
        />
        <el-input
          v-else
          v-model="script"
          type="textarea"
          :rows="14"
          class="mono"
          :aria-label="t('Script')"
          spellcheck="false"
        />
        <details @toggle="typed.open = ($event.target as HTMLDetailsElement).open">
          <summary>{{ t("Try it on bytes of mine") }}</summary>
          <div class="row">
            <el-input-number
              v-model="typed.port"
              :min="0"
              :max="223"
              :controls="false"
              :aria-label="t('Port of the bytes')"
            />
            <el-input v-model="typed.payload" class="mono" placeholder="00d7 0258" :aria-label="t('Bytes in hex')" />
          </div>
        </details>
        <div class="row buttons">
          <el-button v-if="mayTry" :loading="busy" @click="attempt">{{ t("Try") }}</el-button>
          <span v-else class="soft">{{
            t("Drafts of this model are tried by {people}.", {
              people: model?.siteId ? t("people who may edit its site") : t("owners"),
            })
          }}</span>
          <el-button
            v-if="mayTry"
            type="primary"
            :loading="saving.busy.value"
            :disabled="!result || busy"
            @click="save"
            >{{ t("Save as version {version}", { version: (model?.version ?? 1) + 1 }) }}</el-button
          >
          <el-dropdown v-if="versions.length" trigger="click" @command="take">
            <el-button>{{ t("Earlier versions") }}</el-button>
            <template #dropdown>
              <el-dropdown-menu>
                <el-dropdown-item v-for="one in versions" :key="one.version ?? 1" :command="{ ...one, id: modelId }">{{
                  t("version {version}", { version: one.version ?? 1 })
                }}</el-dropdown-item>
              </el-dropdown-menu>
            </template>
          </el-dropdown>
        </div>
        <ProblemNote :error="error ?? saving.error.value" />
      </template>
    </section>

    <section v-if="result" class="sheet">
      <div class="sheet-head">
        <h2>
          {{
            typed.open && typed.payload
              ? t("Your bytes")
              : result.frames.length === 1
                ? t("The newest frame")
                : t("The newest {frames} frames", { frames: result.frames.length })
          }}
        </h2>
        <span role="status">
          {{ t("{same} as before,", { same: result.same }) }}
          <strong>{{ t("{different} otherwise", { different: result.different }) }}</strong>,
          <span :class="{ failed: result.failed }">{{ t("{failed} cannot be read", { failed: result.failed }) }}</span>
        </span>
      </div>
      <div v-if="chosen" class="chosen">
        <p class="soft small">
          {{
            t("{deviceName}, {moment}, port {port}", {
              deviceName: chosen.deviceName,
              moment: moment(chosen.time),
              port: chosen.port,
            })
          }}
        </p>
        <div class="bytes mono" :aria-label="t('Bytes of the frame')">
          <span
            v-for="(byte, i) in bytes"
            :key="i"
            :class="{ owned: owner(i), lit: lit && owner(i) === lit }"
            :title="owner(i) ? t('byte {i}: {owner}', { i, owner: owner(i) }) : t('byte {i}', { i })"
            @mouseenter="lit = owner(i)"
            @mouseleave="lit = ''"
            >{{ byte }}</span
          >
        </div>
        <p v-if="chosen.problem" class="failed">{{ chosen.problem }}</p>
        <table v-else class="rows">
          <thead>
            <tr>
              <th>{{ t("Channel") }}</th>
              <th class="num">{{ t("Draft") }}</th>
              <th class="num">{{ t("Live") }}</th>
              <th>{{ t("From bytes") }}</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="one in values"
              :key="one.channel"
              :class="{ lit: lit === one.channel }"
              @mouseenter="lit = one.channel"
              @mouseleave="lit = ''"
            >
              <td>{{ one.channel }}</td>
              <td class="num">{{ one.value }}</td>
              <td class="num" :class="{ changed: before.get(one.channel) !== one.value }">
                {{ before.get(one.channel) ?? "–" }}
              </td>
              <td class="soft small">
                {{ chosen.parts.find((part) => part.channel === one.channel)?.bytes.join(", ") ?? "" }}
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <EmptyState v-if="!result.frames.length" :title="t('No frames of this model yet')">{{
        t("Its devices have sent nothing, or what they sent is kept no more. Try it on bytes of yours.")
      }}</EmptyState>
      <ul v-if="result.frames.length > 1" class="frames">
        <li v-for="one in result.frames" :key="one.frameId">
          <button type="button" :aria-current="one === chosen" @click="chosen = one">
            <span class="soft small">{{ moment(one.time) }}</span>
            <span class="mono">{{ one.payload }}</span>
            <span v-if="one.problem" class="failed small">{{ t("cannot be read") }}</span>
            <span v-else-if="one.draft !== one.live" class="changed small">{{ t("otherwise") }}</span>
          </button>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.pick {
  max-width: 22rem;
}
.ways {
  margin-bottom: 0.6rem;
}
.buttons {
  margin-top: 0.75rem;
}
/* Saving is possible again at once after a try: a button that fades in between is hard to read. */
.buttons :deep(.el-button) {
  transition: none;
}
.bytes {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  margin-bottom: 0.5rem;
}
.bytes span {
  padding: 0.15rem 0.35rem;
  border: 1px solid var(--line);
  border-radius: 4px;
}
.bytes .owned {
  background: var(--moss-soft);
}
.bytes .lit,
tr.lit td {
  background: var(--heather-soft);
}
.failed {
  color: var(--warning);
}
.changed {
  color: var(--heather);
  font-weight: 600;
}
.frames {
  list-style: none;
  padding: 0;
  margin: 0.75rem 0 0;
  max-height: 20rem;
  overflow-y: auto;
}
.frames button {
  display: flex;
  flex-wrap: wrap;
  gap: 0.75rem;
  width: 100%;
  min-height: 32px;
  padding: 0.2rem 0.4rem;
  border: 0;
  border-bottom: 1px solid var(--line);
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  overflow-wrap: anywhere;
  cursor: pointer;
}
.frames [aria-current="true"] {
  background: var(--heather-soft);
}
</style>

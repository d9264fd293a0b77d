<script setup lang="ts">
import { said, t } from "@/language";
import { api } from "@/api/http";
import { onChanged } from "@/api/live";
import type { Outlet } from "@/api/types";
import { useAction } from "@/look/act";
import { age, every, now } from "@/look/clock";
import EmptyState from "@/look/EmptyState.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { computed, ref } from "vue";
import OutletForm from "./OutletForm.vue";
import StateWord from "@/devices/StateWord.vue";

/** Ways out: readings and alerts that are passed on as they come. */
const places = usePlaces();
const making = ref(false);
const changing = ref<Outlet>();
const removing = ref<Outlet>();
const { data, error, load } = useLoad(() => api.get<Outlet[]>("outlets"));
const action = useAction();
const answer = ref("");
onChanged(["registry", "outlet"], load);
every(5, () => void load());
const mayAdd = computed(() => places.editable.some((place) => place.kind === "site"));

const put = (outlet: Outlet, what: "pause" | "resume") =>
  action.run(
    () => api.post(`outlets/${outlet.id}/${what}`).then(load),
    what === "pause" ? t("Paused: what comes waits.") : t("It goes on."),
  );

async function tryOut(outlet: Outlet) {
  answer.value = "";
  await action.run(
    async () => (answer.value = (await api.post<{ answer: string }>(`outlets/${outlet.id}/try`)).answer),
  );
}

async function remove() {
  const outlet = removing.value;
  if (
    outlet &&
    (await action.run(() => api.remove("outlets/" + outlet.id), t("{name} is removed.", { name: outlet.name })))
  ) {
    await load();
  }
  removing.value = undefined;
}
</script>

<template>
  <section class="sheet">
    <div class="sheet-head">
      <h2>{{ t("Outlets") }}</h2>
      <el-button v-if="mayAdd" type="primary" @click="making = true">{{ t("Make an outlet") }}</el-button>
    </div>
    <p class="soft small">
      {{
        t(
          "Ways out: readings and alerts are passed on as they come, in order. While the outside is away they wait here.",
        )
      }}
    </p>
    <ProblemNote :error="error ?? action.error.value" />
    <p v-if="answer" class="answer" role="status">{{ answer }}</p>
    <table v-if="data?.length" class="rows cards">
      <thead>
        <tr>
          <th>{{ t("Outlet") }}</th>
          <th>{{ t("State") }}</th>
          <th>{{ t("What") }}</th>
          <th class="num">{{ t("Passed on") }}</th>
          <th class="num">{{ t("Waiting") }}</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="outlet in data" :key="outlet.id">
          <td class="wide">
            <strong>{{ outlet.name }}</strong>
            <div class="soft small wrap">{{ outlet.siteName }} · {{ outlet.address }}</div>
          </td>
          <td>
            <StateWord :state="outlet.state" />
            <div class="soft small">{{ said(outlet.reason) }}</div>
          </td>
          <td class="small">
            {{
              [outlet.readings ? t("readings") : "", outlet.alerts ? t("alerts") : ""]
                .filter(Boolean)
                .join(` ${t("and")} `)
            }}
            <div v-if="outlet.quantities" class="soft">{{ outlet.quantities.join(", ") }}</div>
          </td>
          <td class="num" :data-name="t('Passed on')">
            {{ outlet.passed }}
            <div class="soft small">{{ outlet.passedAt ? age(outlet.passedAt, now) : "" }}</div>
          </td>
          <td class="num" :data-name="t('Waiting')">
            {{ outlet.waiting }}
            <div v-if="outlet.oldestAt && outlet.waiting" class="soft small">
              {{ t("since {age}", { age: age(outlet.oldestAt, now) }) }}
            </div>
            <div v-if="outlet.dropped" class="problem small">
              {{ t("{dropped} dropped (queue full)", { dropped: outlet.dropped }) }}
            </div>
            <div v-if="outlet.refused" class="problem small">
              {{ t("{refused} refused", { refused: outlet.refused }) }}
            </div>
          </td>
          <td class="wide">
            <template v-if="places.may('edit', outlet.siteId)">
              <el-button link type="primary" :loading="action.busy.value" @click="tryOut(outlet)">{{
                t("Try now")
              }}</el-button>
              <el-button link type="primary" @click="put(outlet, outlet.state === 'paused' ? 'resume' : 'pause')">{{
                outlet.state === "paused" ? t("Resume") : t("Pause")
              }}</el-button>
              <el-button link type="primary" @click="changing = outlet">{{ t("Change …") }}</el-button>
              <el-button link type="primary" @click="removing = outlet">{{ t("Remove …") }}</el-button>
            </template>
          </td>
        </tr>
      </tbody>
    </table>
    <EmptyState v-else-if="data" :title="t('No outlets yet')">{{
      t(
        "Make one to hand readings or alerts to another program: an address that takes posts, or topics of an MQTT broker.",
      )
    }}</EmptyState>
    <OutletForm v-if="making" @close="((making = false), load())" />
    <OutletForm v-if="changing" :outlet="changing" @close="((changing = undefined), load())" />
    <el-dialog
      :model-value="Boolean(removing)"
      :title="t('Remove this outlet')"
      @update:model-value="(open: boolean) => open || (removing = undefined)"
    >
      <p>
        {{
          t("{name} is forgotten, with {waiting} messages that wait for it.", {
            name: removing?.name,
            waiting: removing?.waiting,
          })
        }}
      </p>
      <template #footer>
        <el-button @click="removing = undefined">{{ t("Cancel") }}</el-button>
        <el-button type="danger" @click="remove">{{ t("Remove {name}", { name: removing?.name }) }}</el-button>
      </template>
    </el-dialog>
  </section>
</template>

<style scoped>
.answer {
  border-left: 3px solid var(--heather);
  padding-left: 0.75rem;
}
.problem {
  color: var(--warning);
}
.wrap {
  overflow-wrap: anywhere;
}
</style>

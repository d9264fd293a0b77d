<script setup lang="ts">
import { said, t } from "@/language";
import { api } from "@/api/http";
import type { Place, Rule, StarterRules } from "@/api/types";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import { useLoad } from "@/look/load";
import { usePoints } from "@/points/points";
import { ref } from "vue";
import { peopleOf } from "./recipients";
import RecipientsField from "./RecipientsField.vue";
import { ruleWords } from "./states";

/** Rules that are proposed for an asset by what is measured there; those that are ticked are made. */
const { asset, proposed } = defineProps<{ asset: Place; proposed: StarterRules }>();
const emit = defineEmits<{ close: [saved: boolean] }>();
const points = usePoints();
const { busy, error, run } = useAction();
const chosen = ref(proposed.proposals.filter((one) => one.reason !== "FAULT").map((one) => one.rule.id));
const recipients = ref<string[]>([]);
const people = useLoad(() => peopleOf(asset.id));
const WHY = {
  LIMITS: t("a limit set holds for it"),
  SILENCE: t("its sensor reports at a known interval; three reports that are missing count as silence"),
  FAULT: t("no other rule judges a sensor at fault"),
  BASELINE: t("it has a baseline; ISO 20816-1 calls such a change significant"),
};

const of = (quantity: string | undefined) => points.ofPlace(asset.id).find((point) => point.quantity === quantity);
const title = (quantity: string) => said(of(quantity)?.quantityTitle ?? quantity);
const words = (rule: Rule) => ruleWords(rule, (rule.target.kind === "asset" && of(rule.target.quantity)?.unit) || "");

async function adopt() {
  const request = { proposals: chosen.value, recipients: recipients.value };
  const count = chosen.value.length;
  const done = t("The rule is made. | {n} rules are made.", { n: count });
  if (await run(() => api.post(`assets/${asset.id}/starter-rules`, request), done)) {
    emit("close", true);
  }
}
</script>

<template>
  <FormDialog
    :title="t('Rules proposed for {name}', { name: asset.name })"
    :save-label="t('Make this rule | Make {n} rules', { n: chosen.length })"
    :error="error"
    :busy="busy"
    :disabled="!chosen.length"
    wide
    @save="adopt"
    @close="emit('close', false)"
  >
    <el-checkbox-group v-model="chosen" class="stack">
      <div v-for="one in proposed.proposals" :key="one.rule.id">
        <el-checkbox :value="one.rule.id">{{ one.rule.name }}</el-checkbox>
        <p class="what soft small">
          {{
            t("{severity}: {words}. Proposed because {reason}.", {
              severity: said(one.rule.severity),
              words: words(one.rule),
              reason: WHY[one.reason],
            })
          }}
        </p>
      </div>
    </el-checkbox-group>
    <p v-if="proposed.withoutLimits.length" class="soft small">
      {{ t("No limit set holds for {join}.", { join: proposed.withoutLimits.map(title).join(", ") }) }}
      <RouterLink to="/limits">{{ t("Choose limits") }}</RouterLink> {{ t("to have them judged.") }}
    </p>
    <el-form-item :label="t('Who is notified')" for="starter-recipients">
      <RecipientsField
        id="starter-recipients"
        v-model="recipients"
        :label="t('Who is notified')"
        :people="people.data.value ?? []"
      />
    </el-form-item>
    <p class="soft small">{{ t("Each rule can be changed or tested later under Alerts, Rules.") }}</p>
  </FormDialog>
</template>

<style scoped>
.what {
  margin: 0 0 0 24px;
  line-height: 1.4;
}
</style>

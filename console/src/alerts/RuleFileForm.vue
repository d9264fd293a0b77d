<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { RuleFile } from "@/api/types";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import { computed, ref } from "vue";

/** Rules as one text, which is tried before it is applied. */
const emit = defineEmits<{ close: []; applied: [] }>();
const { busy, error, run } = useAction();
const text = ref("");
const tried = ref("");
const plan = ref<RuleFile>();
const changes = computed(() => plan.value?.rules.filter((rule) => rule.fate !== "same") ?? []);
/** What is applied is what was looked at. */
const known = computed(() => plan.value && tried.value === text.value);

void run(async () => {
  text.value = await api.text("rules/file");
});

async function look() {
  await run(async () => {
    const wanted = text.value;
    plan.value = undefined;
    plan.value = await api.post<RuleFile>("rules/file", { text: wanted, dryRun: true });
    tried.value = wanted;
  });
}

async function save() {
  if (!known.value) {
    return look();
  }
  if (await run(() => api.post("rules/file", { text: text.value, dryRun: false }), t("The rules are applied."))) {
    emit("applied");
    emit("close");
  }
}
</script>

<template>
  <FormDialog
    :title="t('Rules as YAML')"
    :save-label="known ? t('Apply') : t('Preview changes')"
    :error="error"
    :busy="busy"
    :disabled="known && !changes.length"
    wide
    @save="save"
    @close="emit('close')"
  >
    <p class="soft small">
      {{
        t(
          "Points and places go by their names. What is left out of a rule stays as it is; a rule that is not in the text is not touched.",
        )
      }}
    </p>
    <el-input
      v-model="text"
      class="text"
      type="textarea"
      :rows="18"
      :aria-label="t('Rules as YAML')"
      spellcheck="false"
      @keydown.enter.stop
    />
    <div v-if="known" role="status" class="plan">
      <p v-if="!changes.length">{{ t("Nothing would change.") }}</p>
      <ul v-else>
        <li v-for="rule in changes" :key="rule.id">
          {{ t("“{name}” would be {fate}", { name: rule.name, fate: rule.fate })
          }}<template v-if="rule.changed.length">: {{ rule.changed.join(", ") }}</template>
        </li>
      </ul>
    </div>
  </FormDialog>
</template>

<style scoped>
.text :deep(textarea) {
  font-family: ui-monospace, monospace;
  font-size: 0.85rem;
  line-height: 1.4;
}
.plan {
  margin-top: 0.75rem;
}
ul {
  margin: 0;
  padding-left: 1.25rem;
}
</style>

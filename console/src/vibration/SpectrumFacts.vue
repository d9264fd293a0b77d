<script setup lang="ts">
import { fixed } from "@/look/numbers";
import { t } from "@/language";
import type { Spectrum, Waveform } from "@/api/types";
import { computed } from "vue";
import { figuresOf, findingWords, speedWords, three } from "./spectra";

/** What a spectrum comes to in words and numbers: figures, strongest lines, and what they usually point to. */
const { spectrum, waveform } = defineProps<{ spectrum: Spectrum; waveform?: Waveform }>();
const figures = computed(() => (waveform ? figuresOf(waveform) : []));
const lines = computed(() => spectrum.lines.slice(0, 6));
</script>

<template>
  <ul v-if="spectrum.findings.length" class="findings">
    <li v-for="finding in spectrum.findings" :key="finding.pattern + finding.bearing">
      {{ findingWords(finding) }}
      <span class="soft small">{{
        t("Lines: {join}. A hint, not a diagnosis.", {
          join: finding.lines.map((line) => three(line.hz) + " Hz").join(", "),
        })
      }}</span>
    </li>
  </ul>
  <div class="facts">
    <table v-if="figures.length" class="rows">
      <caption>
        {{
          t("Figures")
        }}
      </caption>
      <tbody>
        <tr>
          <th scope="row">{{ t("Speed") }}</th>
          <td>{{ speedWords(spectrum.speed) }}</td>
        </tr>
        <tr v-for="{ label, value } in figures" :key="label">
          <th scope="row">{{ label }}</th>
          <td>{{ value }}</td>
        </tr>
      </tbody>
    </table>
    <table v-if="lines.length" class="rows">
      <caption>
        {{
          t("Strongest lines")
        }}
      </caption>
      <thead>
        <tr>
          <th scope="col">{{ t("Frequency") }}</th>
          <th scope="col">{{ t("Order") }}</th>
          <th scope="col">RMS</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="line in lines" :key="line.hz">
          <td>{{ three(line.hz) }} Hz</td>
          <td>{{ line.order ? fixed(line.order, 2) + "×" : "–" }}</td>
          <td>{{ three(line.rms) }} {{ spectrum.unit }}</td>
        </tr>
      </tbody>
    </table>
    <p v-else class="soft">{{ t("No line stands out of the noise.") }}</p>
  </div>
</template>

<style scoped>
.facts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
  gap: 1rem 2rem;
  align-items: start;
}
tbody th {
  border-bottom: 1px solid var(--line);
  font-weight: 400;
}
caption {
  text-align: left;
  font-weight: 600;
  padding-bottom: 0.3rem;
}
.findings {
  padding-left: 1.1rem;
  margin: 0.75rem 0;
}
</style>

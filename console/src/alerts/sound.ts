import type { Alert, Severity } from "@/api/types";
import { rank } from "@/look/severity";
import { computed, onBeforeUnmount, reactive, ref, watch } from "vue";
import { useAlerts } from "./alerts";

/** From which severity on this browser sounds for alerts; kept in it. */
export const soundFrom = ref<Severity | "none">(
  (["advisory", "warning", "critical"] as const).find((one) => one === localStorage.getItem("sound-from")) ?? "none",
);
/** Whether the browser plays nothing until somebody presses something on the page. */
export const soundBlocked = ref(false);
watch(soundFrom, (from) => localStorage.setItem("sound-from", from));

const AGAIN_AFTER_MS = 15_000;
/** Tones in hertz: the worse, the more and the higher. */
const TONES: Record<string, number[]> = { advisory: [520], warning: [520, 660], critical: [660, 880, 660, 880] };
const TONE_SECONDS = 0.22;
/** Which alerts, as bad as they were, somebody has silenced at this page. */
const silenced = reactive(new Set<string>());
const keyOf = (alert: Alert) => `${alert.id} ${alert.severity}`;

let context: AudioContext | undefined;

/** Plays the tones of a severity once. */
export async function play(severity: Severity) {
  context ??= new AudioContext();
  if (context.state !== "running") {
    await Promise.race([context.resume(), new Promise((done) => setTimeout(done, 300))]);
  }
  soundBlocked.value = context.state !== "running";
  if (soundBlocked.value) {
    return;
  }
  const gain = context.createGain();
  gain.gain.value = 0.25;
  gain.connect(context.destination);
  (TONES[severity] ?? []).forEach((hertz, at) => {
    const begin = context!.currentTime + at * TONE_SECONDS * 1.4;
    const tone = context!.createOscillator();
    tone.frequency.value = hertz;
    tone.connect(gain);
    tone.start(begin);
    tone.stop(begin + TONE_SECONDS);
  });
}

/** Sounds for alerts that nobody has acknowledged, again and again, until somebody does or silences them here. */
export function useSound() {
  const alerts = useAlerts();
  const sounding = computed(() =>
    soundFrom.value === "none"
      ? []
      : alerts.waiting.filter(
          (alert) => rank(alert.severity) >= rank(soundFrom.value as Severity) && !silenced.has(keyOf(alert)),
        ),
  );
  let timer: ReturnType<typeof setInterval> | undefined;
  const sound = () => {
    if (sounding.value[0]) {
      // The worst stands first.
      void play(sounding.value[0].severity).catch(() => (soundBlocked.value = true));
    }
  };
  watch(
    () => sounding.value.map(keyOf).join(),
    (now, before) => {
      clearInterval(timer);
      if (now) {
        timer = setInterval(sound, AGAIN_AFTER_MS);
        const known = new Set(before?.split(","));
        if (now.split(",").some((one) => !known.has(one))) {
          sound();
        }
      }
    },
    { immediate: true },
  );
  onBeforeUnmount(() => clearInterval(timer));

  function silence() {
    sounding.value.forEach((alert) => silenced.add(keyOf(alert)));
  }

  return { sounding, silence, sound };
}

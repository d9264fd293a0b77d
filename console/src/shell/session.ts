import { api, Refusal, whenSignedOut } from "@/api/http";
import { closeLive, openLive } from "@/api/live";
import { forgetKept, keepForOffline } from "@/api/offline";
import type { Person } from "@/api/types";
import { notifyHereNoLonger } from "@/settings/browsers";
import { useAlerts } from "@/alerts/alerts";
import { loadUnits, useUnitsOf } from "@/look/units";
import { usePlaces } from "@/places/places";
import { loadStarred, useStarred } from "@/starred/starred";
import { usePoints } from "@/points/points";
import { defineStore } from "pinia";
import { computed, ref, shallowRef } from "vue";

const AGAIN_AFTER_MS = 3_000;

/** Who is signed in. */
export const useSession = defineStore("session", () => {
  const person = shallowRef<Person>();
  const setupNeeded = ref(false);
  /** Why nobody could be asked who we are. */
  const away = shallowRef<unknown>();
  const owner = computed(() => person.value?.owner ?? false);

  /** Asks the service who we are; false if nobody. */
  async function resume(): Promise<boolean> {
    try {
      await enter((await api.get<{ person: Person }>("session")).person);
      return true;
    } catch (error) {
      if (!(error instanceof Refusal) || error.status !== 401) {
        throw error;
      }
      setupNeeded.value = (await api.get<{ needed: boolean }>("setup")).needed;
      return false;
    }
  }

  /** Begins with what a sign-in, first visit or invitation answered. */
  async function enter(who: Person) {
    person.value = who;
    setupNeeded.value = false;
    // What cannot be loaded is said where it belongs, and tried again; the rest is there.
    await Promise.allSettled([loadUnits(), loadStarred(), usePlaces().load(), usePoints().load(), useAlerts().load()]);
    if (person.value) {
      openLive();
      // Beside everything else: without it the console is as before.
      void keepForOffline().catch(() => undefined);
    }
  }

  /** The same, and while the service is away it waits until it is there. */
  async function resumeWhenThere(): Promise<boolean> {
    for (;;) {
      try {
        const known = await resume();
        away.value = undefined;
        return known;
      } catch (error) {
        away.value = error;
        await new Promise((done) => setTimeout(done, AGAIN_AFTER_MS));
      }
    }
  }

  async function signOut() {
    await notifyHereNoLonger().catch(() => undefined);
    await api.remove("session");
    leave();
  }

  function leave() {
    closeLive();
    forgetKept();
    useUnitsOf(undefined);
    void useStarred(undefined);
    person.value = undefined;
  }

  whenSignedOut(leave);

  return { person, owner, setupNeeded, away, resume, resumeWhenThere, enter, signOut };
});

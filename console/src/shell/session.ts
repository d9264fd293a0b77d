import { api, Refusal, whenSignedOut } from "@/api/http";
import { closeLive, openLive } from "@/api/live";
import type { Person } from "@/api/types";
import { useAlerts } from "@/alerts/alerts";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { defineStore } from "pinia";
import { computed, ref, shallowRef } from "vue";

/** Who is signed in. */
export const useSession = defineStore("session", () => {
  const person = shallowRef<Person>();
  const setupNeeded = ref(false);
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
    await Promise.all([usePlaces().load(), usePoints().load(), useAlerts().load()]);
    openLive();
  }

  async function signOut() {
    await api.remove("session");
    leave();
  }

  function leave() {
    closeLive();
    person.value = undefined;
  }

  whenSignedOut(leave);

  return { person, owner, setupNeeded, resume, enter, signOut };
});

import { api } from "@/api/http";
import { everySeen } from "@/look/clock";
import { inject, onScopeDispose, ref, shallowRef, watch, type InjectionKey } from "vue";

/** Where the picture of a camera is fetched; a shared page has an address of its own. */
export const CAMERA_PATH: InjectionKey<(cameraId: string) => string> = Symbol("camera path");
const OWN = (cameraId: string) => `cameras/${cameraId}/picture`;
const REFRESH_SECONDS = 10;

/** The newest picture of a camera, fetched again and again while somebody sees the page. The last one stays. */
export function useCamera(cameraId: () => string | undefined) {
  const path = inject(CAMERA_PATH, OWN);
  const source = ref("");
  const takenAt = ref<string>();
  const error = shallowRef<unknown>();
  let busy = false;

  function show(picture?: Blob) {
    URL.revokeObjectURL(source.value);
    source.value = picture ? URL.createObjectURL(picture) : "";
  }

  async function load() {
    const id = cameraId();
    if (!id || busy) {
      return;
    }
    busy = true;
    try {
      const { content, changedAt } = await api.file(path(id));
      if (cameraId() === id && changedAt !== takenAt.value) {
        show(content);
        takenAt.value = changedAt;
      }
      error.value = undefined;
    } catch (problem) {
      error.value = problem;
    } finally {
      busy = false;
    }
  }

  watch(
    cameraId,
    () => {
      show();
      takenAt.value = undefined;
      error.value = undefined;
      void load();
    },
    { immediate: true },
  );
  everySeen(REFRESH_SECONDS, load);
  onScopeDispose(() => show());
  return { source, takenAt, error };
}

import { api } from "@/api/http";
import { useRefreshed } from "@/look/load";
import { computed, inject, onScopeDispose, ref, watch, type InjectionKey } from "vue";

/** Where the picture of a camera is fetched; a shared page has an address of its own. */
export const CAMERA_PATH: InjectionKey<(cameraId: string) => string> = Symbol("camera path");
const OWN = (cameraId: string) => `cameras/${cameraId}/picture`;
const REFRESH_SECONDS = 10;

/** The newest picture of a camera, fetched again and again while somebody sees the page. The last one stays. */
export function useCamera(cameraId: () => string | undefined) {
  const path = inject(CAMERA_PATH, OWN);
  const { data, error } = useRefreshed(
    async () => {
      const id = cameraId();
      return id ? { id, ...(await api.file(path(id))) } : undefined;
    },
    [cameraId],
    REFRESH_SECONDS,
  );
  /** That of another camera is not shown. */
  const shot = computed(() => (data.value?.id === cameraId() ? data.value : undefined));
  const takenAt = computed(() => shot.value?.changedAt);
  const source = ref("");

  function show(picture?: Blob) {
    URL.revokeObjectURL(source.value);
    source.value = picture ? URL.createObjectURL(picture) : "";
  }

  watch([() => shot.value?.id, takenAt], () => show(shot.value?.content));
  onScopeDispose(() => show());
  return { source, takenAt, error };
}

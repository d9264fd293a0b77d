import { api } from "@/api/http";
import { onChanged } from "@/api/live";
import type { Plan } from "@/api/types";
import { everySeen } from "@/look/clock";
import { useLoad } from "@/look/load";
import { inject, watch, type InjectionKey } from "vue";

/** Where the plan of a place and its picture are fetched; a shared page has addresses of its own. */
export type PlanPath = (placeId: string) => { plan: string; picture: string };
export const PLAN_PATH: InjectionKey<PlanPath> = Symbol("plan path");

/** A shared page has no live stream. */
const REFRESH_SECONDS = 60;
const OWN: PlanPath = (placeId) => ({ plan: `places/${placeId}/plan`, picture: `places/${placeId}/picture` });

/** The plan of a place, fetched again when something is registered. */
export function usePlan(placeId: () => string | undefined) {
  const path = inject(PLAN_PATH, OWN);
  const loaded = useLoad(async () => {
    const id = placeId();
    return id ? api.get<Plan>(path(id).plan) : undefined;
  });
  watch(placeId, loaded.load);
  onChanged(["registry"], loaded.load);
  everySeen(REFRESH_SECONDS, loaded.load);
  /** The picture's address; another one when the picture is another. */
  const source = (plan: Plan) => `/api/v1/${path(plan.placeId).picture}?v=${plan.picture}`;
  return { ...loaded, source };
}

const LONGEST_SIDE = 2560;
/** A smaller picture goes as it is. */
const SMALL_BYTES = 1_500_000;

/**
 * A picture from a phone's camera, made small enough for a thin connection before it is sent. What the browser cannot
 * decode goes as it is, and the service says what is wrong with it.
 */
export async function lightened(file: File): Promise<Blob> {
  if (file.size <= SMALL_BYTES || file.type === "image/svg+xml") {
    return file;
  }
  const bitmap = await createImageBitmap(file).catch(() => undefined);
  if (!bitmap) {
    return file;
  }
  const scale = Math.min(1, LONGEST_SIDE / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(bitmap.width * scale);
  canvas.height = Math.round(bitmap.height * scale);
  canvas.getContext("2d")?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve) => canvas.toBlob((blob) => resolve(blob ?? file), "image/jpeg", 0.9));
}

/** A mark moved by a share of the picture, and kept within it. */
export function moved<T extends { x: number; y: number }>(mark: T, x: number, y: number): T {
  const within = (value: number) => Math.round(Math.min(1, Math.max(0, value)) * 10_000) / 10_000;
  return { ...mark, x: within(mark.x + x), y: within(mark.y + y) };
}

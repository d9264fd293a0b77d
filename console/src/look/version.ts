import { api } from "@/api/http";

/**
 * How a thing was registered when its form was opened, so that saving does not overwrite what somebody else saved meanwhile.
 * Without a path there is nothing to compare with: it is being made.
 */
export function useVersion(path: string | undefined): () => Promise<string | undefined> {
  const tag = path
    ? api
        .tagged(path)
        .then(({ tag }) => tag)
        .catch(() => undefined)
    : Promise.resolve(undefined);
  return () => tag;
}

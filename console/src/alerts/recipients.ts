import { api } from "@/api/http";
import type { PossibleRecipient } from "@/api/types";

/** What stands before the name of a person with an account. */
const PERSON = "person:";

/** Recipients as people write them: addresses and numbers, however they are separated. */
export function parted(text: string): string[] {
  return text
    .split(/[,;\n]+/)
    .flatMap((part) => (part.includes("@") ? part.split(/\s+/) : [part]))
    .map((part) => part.trim())
    .filter(Boolean);
}

/** A recipient as it is shown. */
export function recipientWords(recipient: string): string {
  return recipient.startsWith(PERSON) ? recipient.slice(PERSON.length) : recipient;
}

/** The people who may be told of a place; nobody to choose from for who may not know them. */
export const peopleOf = (placeId: string): Promise<PossibleRecipient[]> =>
  api.get<PossibleRecipient[]>(`places/${placeId}/recipients`).catch(() => []);

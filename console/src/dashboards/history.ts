import { computed, onScopeDispose, shallowRef, type Ref } from "vue";

/** Something that is edited step by step; each step can be taken back and done again, by the usual keys too. */
export function useHistory<T>() {
  const draft = shallowRef<T>();
  const past = shallowRef<T[]>([]);
  const ahead = shallowRef<T[]>([]);

  function begin(from: T) {
    draft.value = from;
    past.value = [];
    ahead.value = [];
  }

  function end() {
    draft.value = undefined;
  }

  /** The next step; one that changes nothing is none. */
  function go(next: T) {
    if (draft.value && JSON.stringify(draft.value) !== JSON.stringify(next)) {
      past.value = [...past.value, draft.value];
      ahead.value = [];
      draft.value = next;
    }
  }

  function step(from: Ref<T[]>, to: Ref<T[]>) {
    const next = from.value.at(-1);
    if (next && draft.value) {
      from.value = from.value.slice(0, -1);
      to.value = [...to.value, draft.value];
      draft.value = next;
    }
  }

  const undo = () => step(past, ahead);
  const redo = () => step(ahead, past);

  /** The usual keys, unless something is being typed. */
  function keys(event: KeyboardEvent) {
    const typing = (event.target as HTMLElement).closest("input, textarea, [role=dialog]");
    const key = event.key.toLowerCase();
    if (draft.value && !typing && (event.ctrlKey || event.metaKey) && (key === "z" || key === "y")) {
      event.preventDefault();
      (key === "y" || event.shiftKey ? redo : undo)();
    }
  }
  window.addEventListener("keydown", keys);
  onScopeDispose(() => window.removeEventListener("keydown", keys));

  return {
    draft,
    begin,
    end,
    go,
    undo,
    redo,
    canUndo: computed(() => past.value.length > 0),
    canRedo: computed(() => ahead.value.length > 0),
  };
}

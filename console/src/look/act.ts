import { ref, shallowRef } from "vue";
import { ElMessage } from "element-plus/es/components/message/index.mjs";
import "element-plus/es/components/message/style/css";

/** An action behind a button: whether it runs, and why it failed. Says when it is done. */
export function useAction() {
  const busy = ref(false);
  const error = shallowRef<unknown>();

  async function run(action: () => Promise<unknown>, done?: string): Promise<boolean> {
    busy.value = true;
    error.value = undefined;
    try {
      await action();
      if (done) {
        say(done);
      }
      return true;
    } catch (problem) {
      error.value = problem;
      return false;
    } finally {
      busy.value = false;
    }
  }

  return { busy, error, run };
}

export function say(message: string) {
  ElMessage({ message, type: "success", grouping: true, duration: 3500, plain: true, placement: "bottom" });
}

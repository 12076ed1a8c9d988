import { ElMessage } from "element-plus";
import { Refused } from "../api/client";

/** Do it, and tell in the server's own sentence when it is refused. */
export async function withErrorToast(act: () => Promise<void>): Promise<void> {
  try {
    await act();
  } catch (problem) {
    const message = problem instanceof Refused ? problem.message : String(problem);
    ElMessage({ type: "error", message, duration: 9000, showClose: true });
  }
}

import { t } from "@/language";
import type { PanelKind } from "../kind";
import CameraFields from "./CameraFields.vue";
import CameraPanel from "./CameraPanel.vue";

export const camera: PanelKind = {
  name: t("Camera picture"),
  size: { w: 6, h: 5 },
  points: "none",
  look: [],
  lacks: (panel) => panel.kind === "camera" && !panel.cameraId,
  fields: CameraFields,
  view: CameraPanel,
};

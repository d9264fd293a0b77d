import type { Panel } from "@/api/types";
import { alerts } from "./alerts";
import { asked } from "./asked";
import { bars } from "./bars";
import { camera } from "./camera";
import { clock } from "./clock";
import { control } from "./control";
import { days } from "./days";
import { dial } from "./dial";
import { directions } from "./directions";
import { exposure } from "./exposure";
import { guidance } from "./guidance";
import { hours } from "./hours";
import { line } from "./line";
import { map } from "./map";
import { pairs } from "./pairs";
import { picture } from "./picture";
import { plan } from "./plan";
import { spectrum } from "./spectrum";
import { spread } from "./spread";
import { states } from "./states";
import { tally } from "./tally";
import { text } from "./text";
import { value } from "./value";
import { vessel } from "./vessel";
import type { PanelKind } from "./kind";

/** All kinds of panels, in the order in which they are offered. */
export const KINDS: Record<Panel["kind"], PanelKind> = {
  value,
  line,
  dial,
  vessel,
  states,
  bars,
  days,
  hours,
  pairs,
  spread,
  directions,
  spectrum,
  exposure,
  tally,
  picture,
  plan,
  map,
  camera,
  alerts,
  asked,
  control,
  guidance,
  text,
  clock,
};

/** The shapes of the service's API; each is a record in the module api with the same name. Times are ISO 8601 in UTC. */
export type Severity = "normal" | "advisory" | "warning" | "critical";
export type Right = "look" | "operate" | "edit" | "manage";
export type Quality = "GOOD" | "UNCERTAIN" | "BAD";

export interface Latest {
  time: string;
  value: number;
  quality: Quality;
  /** Null where nothing is known of it: no limits hold, or the value cannot be real. */
  severity: Severity | null;
  zone: string | null;
  headroomPercent: number | null;
  nextBoundary: number | null;
  nextZone: string | null;
}

export interface Point {
  id: string;
  number: number;
  name: string;
  placeId: string;
  path: string[];
  quantity: string;
  quantityTitle: string;
  unit: string;
  usualUnit: string;
  decimals: number;
  direction: string | null;
  note: string | null;
  released: boolean;
  limitSet: string | null;
  ownLimitSet: boolean;
  latest: Latest | null;
  deviceId: string | null;
  channel: string | null;
  intervalSeconds: number | null;
  /** By which it is derived from other points; null if it is measured. */
  formula: Formula | null;
  /** The same in words. */
  formulaText: string | null;
}

export type Statistic = "mean" | "minimum" | "maximum" | "sum";

export type Formula =
  | {
      kind: "prepared";
      recipe: string;
      inputs: Record<string, string>;
      parameters: Record<string, number>;
      withinMinutes: number | null;
    }
  | { kind: "written"; text: string; inputs: Record<string, string>; withinMinutes: number | null }
  | {
      kind: "over";
      statistic: Statistic;
      selection: { placeId: string; quantity: string; assetKind: string | null };
      withinMinutes: number | null;
    };

/** A prepared formula, and what it needs. */
export interface Recipe {
  recipe: string;
  title: string;
  inputs: { name: string; quantity: string }[];
  parameters: { name: string; title: string; unit: string; usual: number | null; lowest: number; highest: number }[];
  results: string[];
  total: boolean;
}

/** A derived point that a place could have. */
export interface FormulaProposal {
  recipe: string;
  inputs: Record<string, string>;
  needs: boolean;
}

export interface Place {
  id: string;
  kind: "site" | "area" | "asset";
  name: string;
  parentId: string | null;
  assetKind: string | null;
  limitSets: string[];
  zone: string | null;
  latitude: number | null;
  longitude: number | null;
  severity: Severity | null;
  points: number;
  openAlerts: number;
  right: Right | null;
}

export interface Zone {
  label: string;
  severity: Severity;
  from: number | null;
  to: number | null;
  meaning: string;
  /** Whether the lower bound belongs to it, as in "from 72". */
  fromIncluded?: boolean | null;
}

export interface LimitSet {
  id: string;
  title: string;
  source: { document: string; edition: string; clause: string };
  quantity: string;
  unit: string;
  appliesTo: string;
  shipped: boolean;
  zones: Zone[];
}

export interface Series {
  pointId: string;
  unit: string;
  times: number[];
  values: number[];
  qualities: number[] | string;
  kept: number;
  gaps: Gap[];
}

/** A stretch in which nothing came though it should have; epoch milliseconds. */
export interface Gap {
  from: number;
  until: number;
}

export interface Notice {
  id: string;
  alertId: string | null;
  recipient: string;
  subject: string;
  state: "waiting" | "delivered" | "failed";
  attempts: number;
  lastError: string | null;
  createdAt: string;
  sentAt: string | null;
  /** When it is tried (again), while it waits. */
  nextAt: string | null;
}

/** How the alerts themselves do (IEC 62682, 16). */
export interface AlertFigures {
  since: string;
  until: string;
  alerts: number;
  perDay: number;
  mostInTenMinutes: number;
  floodPercent: number;
  bySeverity: Partial<Record<Severity, number>>;
  stale: { alertId: string; summary: string; hours: number }[];
  chattering: { rule: string; place: string; times: number }[];
  top: { rule: string; place: string; times: number; percent: number }[];
}

/** An alert for the reader of a notice who has not signed in. */
export interface MailedAlert {
  summary: string;
  severity: Severity;
  state: AlertState;
  raisedAt: string;
  acknowledgedAt: string | null;
  acknowledgedBy: string | null;
}

export type AlertState =
  "normal" | "on-delay" | "unacknowledged" | "acknowledged" | "returned" | "shelved" | "out-of-service";

export interface Alert {
  id: string;
  ruleId: string;
  ruleName: string;
  severity: Severity;
  state: AlertState;
  summary: string;
  limit: string;
  value: number | null;
  unit: string;
  placeId: string;
  path: string[];
  pointId: string | null;
  startedAt: string;
  raisedAt: string;
  learntAt: string;
  acknowledgedAt: string | null;
  acknowledgedBy: string | null;
  returnedAt: string | null;
  returnValue: number | null;
  closedAt: string | null;
  /** How its rule is set aside; null if it is not. */
  shelf: Shelf | null;
  assignedTo: string | null;
  guidance: string;
  cause: string;
  steps: AlertStep[];
  notes: { at: string; person: string; text: string }[];
  notices: Notice[];
}

/** Which way a point goes, and when it reaches the next worse zone. */
export interface Trend {
  days: number;
  count: number;
  clear: boolean;
  reason: string;
  perDay: number | null;
  lowPerDay: number | null;
  highPerDay: number | null;
  boundary: number | null;
  zone: string | null;
  severity: Severity | null;
  reachedAt: string | null;
  earliest: string | null;
  latest: string | null;
}

/** Why a person has access to a place. */
export interface AccessReason {
  personId: string;
  personName: string;
  right: Right;
  why: "owner" | "grant-here" | "grant-above" | "grant-on-part";
  targetId: string | null;
  targetName: string;
  group: string | null;
}

/** One's own second factor; secret and codes only when they are made. */
export interface SecondFactor {
  on: boolean;
  recoveryCodesLeft: number;
  secret: string | null;
  uri: string | null;
  recoveryCodes: string[];
}

/** A rule that is set aside; without an end it is out of service. */
export interface Shelf {
  until: string | null;
  person: string;
  reason: string;
}

export interface RuleShelf {
  ruleId: string;
  ruleName: string;
  memberId: string;
  shelf: Shelf;
}

export interface AlertStep {
  at: string;
  kind:
    | "raised"
    | "worsened"
    | "eased"
    | "acknowledged"
    | "returned"
    | "recurred"
    | "latched"
    | "shelved"
    | "unshelved"
    | "assigned"
    | "closed";
  severity: Severity | null;
  value: number | null;
  person: string;
  text: string;
}

export type Target =
  | { kind: "point"; pointId: string }
  | { kind: "asset"; assetId: string; quantity: string }
  | { kind: "selection"; placeId: string; quantity: string; assetKind: string | null; each: "point" | "asset" };
export type Measure =
  | { kind: "last" }
  | { kind: "mean" | "minimum" | "maximum" | "range" | "rate" | "deviation"; seconds: number }
  | { kind: "forecast"; seconds: number; aheadSeconds: number }
  | { kind: "difference"; pointId: string; withinSeconds: number };
/** A further condition; "here" is a quantity of the place that the rule is judged for. */
export interface Term {
  target: Target | { kind: "here"; quantity: string };
  measure: Measure;
  condition: Condition;
  deadBand: number;
}
export type Condition =
  | { kind: "above"; limit: number }
  | { kind: "below"; limit: number }
  | { kind: "outside"; low: number; high: number }
  | { kind: "in-zone"; atLeast: Severity }
  | { kind: "faulty" }
  | { kind: "silent"; seconds: number }
  | { kind: "device-says"; silentSeconds: number };
export type Hold = { kind: "time"; seconds: number } | { kind: "reports"; count: number };

export interface Round {
  afterMinutes: number;
  recipients: string[];
}

export interface Rule {
  id: string;
  name: string;
  target: Target;
  measure: Measure;
  condition: Condition;
  also: Term[];
  atLeast: number | null;
  hold: Hold;
  deadBand: number;
  severity: Severity;
  /** Whether an alert has the severity of the zone that was reached. */
  severityOfZone: boolean | null;
  /** Whether an alert that is over stays listed until somebody has seen that it is. */
  latching: boolean | null;
  /** Whether who was told of an alert is told that it is over. */
  tellWhenOver: boolean | null;
  /** Who else is told while nobody acknowledges. */
  rounds: Round[];
  enabled: boolean;
  recipients: string[];
  guidance: string;
}

export interface RuleStanding {
  ruleId: string;
  memberId: string;
  state: AlertState;
  since: string | null;
  alertId: string | null;
}

export interface Gateway {
  id: string;
  name: string;
  eui: string;
  siteId: string;
  siteName: string;
  state: "online" | "silent" | "never-heard";
  lastHeard: string | null;
  canTransmit: boolean;
  frames: number;
  rssiDbm: number | null;
  snrDb: number | null;
  devices: string[];
}

export interface HeardGateway {
  eui: string;
  firstHeard: string;
  lastHeard: string;
  frames: number;
}

/** Where an inlet gets its messages from. */
export type Source =
  | { kind: "tcp" | "udp"; port: number; bind?: string | null }
  | { kind: "serial"; line: SerialLine }
  | { kind: "http-inbox"; tellsSensors?: boolean | null }
  | { kind: "http-fetch"; url: string; everySeconds: number; allowPrivate?: boolean | null }
  | { kind: "mqtt"; url: string; topics: string[]; username?: string | null; version?: number | null }
  | { kind: "own-broker"; topics: string[] }
  | {
      kind: "bacnet-ip";
      port?: number | null;
      bind?: string | null;
      lookAt?: string[] | null;
      timeoutMillis?: number | null;
    }
  | { kind: "modbus-tcp"; timeoutMillis?: number | null }
  | { kind: "modbus-rtu-tcp"; host: string; port: number; timeoutMillis?: number | null }
  | {
      kind: "modbus-serial";
      line: SerialLine;
      timeoutMillis?: number | null;
    };

/** A serial port and how it is set. */
export interface SerialLine {
  device: string;
  baud: number;
  dataBits?: number | null;
  parity?: string | null;
  stopBits?: number | null;
}

/** How frames follow one another in what comes. */
export type Framing = { kind: "whole" | "lines" | "framed" } & Record<string, unknown>;

/** How messages are opened. */
export interface Contents {
  form: "text" | "csv" | "json" | "senml" | "bytes";
  address: string | null;
  separator: string | null;
  each: string | null;
  payload: string | null;
  encoding: "plain" | "hex" | "base64" | null;
  time: string | null;
  signal: string | null;
}

export interface Inlet {
  /** None for the ports of LoRaWAN gateways. */
  id: string | null;
  name: string;
  kind: string;
  siteId: string | null;
  siteName: string | null;
  address: string;
  state: "connecting" | "up" | "degraded" | "down" | "paused";
  reason: string;
  received: number;
  refused: number;
  lost: number;
  thinned: number;
  replaced: number;
  lastAt: string | null;
  devices: number;
  strangers: number;
  refusals: { time: string; sender: string; reason: string }[];
  settings: { source: Source; framing: Framing; contents: Contents | null; keepEverySeconds: number | null } | null;
}

/** A device that is asked, and how that goes. */
export interface Poll {
  deviceId: string;
  deviceName: string;
  address: string;
  group: number | null;
  everySeconds: number;
  paused: boolean;
  at: string | null;
  tookMillis: number;
  rounds: number;
  late: number;
  problem: string;
  values: string;
  rows: { channel: string; where: string; raw: string; value: number | null; settable: boolean }[];
}

export interface Stranger {
  address: string;
  firstHeard: string;
  lastHeard: string;
  count: number;
  newest: string;
  proposal: Proposal | null;
}

export interface Proposal {
  layout: Layout;
  channels: Channel[];
  example: string;
}

export interface Trial {
  message: string;
  parts: {
    address: string | null;
    deviceId: string | null;
    deviceName: string | null;
    payload: string;
    values: string;
    problem: string | null;
    proposal: Proposal | null;
    identity: string | null;
  }[];
}

export interface Device {
  id: string;
  name: string;
  modelId: string;
  modelName: string;
  placeId: string;
  path: string[];
  devEui: string | null;
  /** Its EUI, or what stands in its messages. */
  address: string;
  activation: "over-the-air" | "personalised" | "inlet";
  inletId: string | null;
  inletName: string | null;
  state: "online" | "silent" | "silent-gateway" | "silent-inlet" | "silent-battery" | "joined" | "never-heard";
  stateReason: string;
  lastHeard: string | null;
  rssiDbm: number | null;
  snrDb: number | null;
  dataRate: string | null;
  counter: number | null;
  frames: number;
  lost: number;
  batteryVolts: number | null;
  problem: string | null;
  assignments: { id: string; channel: string; pointId: string; pointName: string }[];
  gateways: string[];
  batteryPercent: number | null;
  marginDb: number | null;
  firmware: string | null;
  hardware: string | null;
  configuringSince: string | null;
  clockAheadSeconds: number | null;
  clockCorrected: boolean;
}

export interface Step {
  id: string;
  title: string;
  state: "done" | "waiting" | "failed" | "later";
  words: string;
  todo: string;
  at: string | null;
}

export interface ResponseCheck {
  id: string;
  pointId: string;
  pointName: string;
  unit: string;
  from: string;
  until: string;
  person: string;
  worked: boolean | null;
  note: string;
  running: boolean;
  before: number | null;
  lowest: number | null;
  highest: number | null;
}

export interface Commissioning {
  deviceId: string;
  steps: Step[];
  done: boolean;
  checks: ResponseCheck[];
}

export interface Command {
  id: number;
  deviceId: string;
  deviceName: string;
  wantedAt: string;
  person: string;
  what: string;
  setting: string | null;
  value: number | null;
  port: number;
  payload: string;
  confirmed: boolean;
  state: "wanted" | "sent" | "acknowledged" | "failed" | "cancelled";
  tries: number;
  changedAt: string;
  reason: string;
}

export interface RadioState {
  region: string;
  devAddr: string;
  lastUp: number;
  nextDown: number;
  dataRate: string | null;
  txPowerDbm: number;
  repetitions: number;
  rx1DelaySeconds: number;
  rx2Mhz: number;
  rx2DataRate: string;
  extraChannelsMhz: number[];
  subBandChosen: boolean | null;
  batteryWords: string | null;
  heardMarginDb: number | null;
  statusAt: string | null;
  refused: string | null;
  asked: string[];
  bestSnrDb: number | null;
  lostPercent: number | null;
  waiting: number;
  alwaysListens: boolean;
}

export interface SignalFrame {
  time: string;
  counter: number;
  rssiDbm: number;
  snrDb: number;
  marginDb: number;
  dataRate: string;
  gateway: string;
  gateways: number;
}

export interface Signal {
  frames: SignalFrame[];
  lostPercent: number | null;
  joins: number;
  restarts: number;
  airSecondsADay: number;
  monthsLeft: number | null;
}

export interface GatewayFacts {
  gateway: Gateway;
  hours: { start: string; frames: number; meanRssiDbm: number; meanSnrDb: number }[];
  channels: { megahertz: number; frames: number; percent: number }[];
  dutyUsedPercent: number;
  devices: { id: string; name: string; state: string }[];
  onlyHere: string[];
  hasToken: boolean;
}

export interface FleetNews {
  time: string;
  deviceId: string;
  words: string;
}

export interface Label {
  joinEui: string;
  devEui: string;
  vendorId: string;
  profileId: string;
  serialNumber: string | null;
  deviceId: string | null;
  deviceName: string | null;
  keyIsListed: boolean;
  modelId: string | null;
}

export interface RadioSettings {
  region: string;
  subBand: number;
  rx1DelaySeconds: number | null;
  rx1Offset: number | null;
  rx2Mhz: number | null;
  rx2DataRate: string | null;
  uplinkDwellTime: boolean | null;
  downlinkDwellTime: boolean | null;
  dutyCycleExponent: number | null;
  downlinkChannels: { uplinkMhz: number; downlinkMhz: number }[] | null;
}

export interface Region {
  id: string;
  title: string;
  subBands: number;
  dataRates: string[];
  rx2Mhz: number;
  rx2DataRate: string;
  rx1Offsets: number;
  dwellTime: boolean;
}

export interface DeviceSetting {
  name: string;
  title: string;
  unit: string;
  min: number;
  max: number;
  inConfigurationMode?: boolean | null;
  usualInterval?: boolean | null;
}

export interface Power {
  chemistry: string;
  cells: number | null;
  capacityMah: number | null;
  restMicroamps: number | null;
  reportMicroampHours: number | null;
}

export interface Tried {
  frameId: number;
  time: string;
  deviceName: string;
  port: number;
  payload: string;
  live: string | null;
  draft: string | null;
  problem: string | null;
  parts: { channel: string; bytes: number[] }[];
}

export interface ImportReport {
  accepted: number;
  refused: number;
  problems: { line: number; reason: string }[];
  dryRun: boolean;
}

export interface Workbench {
  frames: Tried[];
  same: number;
  different: number;
  failed: number;
}

export interface Frame {
  id: number;
  time: string;
  sentAt: string | null;
  kind: string;
  deviceId: string | null;
  deviceName: string | null;
  inletId: string | null;
  inletName: string | null;
  address: string;
  bytes: string;
  payload: string;
  text: string | null;
  port: number;
  counter: number;
  accepted: boolean;
  outcome: "accepted" | "refused" | "repeated";
  cause: string | null;
  reason: string | null;
  values: string;
  heard: {
    gatewayEui: string;
    gatewayName: string | null;
    rssiDbm: number;
    snrDb: number;
    dataRate: string;
    frequencyMhz: number;
  }[];
}

export interface Channel {
  name: string;
  title: string;
  quantity: string;
  unit: string;
  direction?: string | null;
  deadBand?: number | null;
}

/** How channels are read; without a format by bytes. */
export type Layout = ByteLayout | ({ format: "line" | "json" | "advert" | "registers" } & Record<string, unknown>);

export interface ByteLayout {
  format?: "bytes";
  messages: { port: number | null; fields: { channel: string; at: number; type: string }[] }[];
}

export interface DeviceModel {
  id: string;
  name: string;
  description: string;
  intervalSeconds: number;
  batteryChannel: string | null;
  layout: Layout;
  channels: Channel[];
  script?: string | null;
  listensAlways?: boolean | null;
  power?: Power | null;
  settings?: DeviceSetting[] | null;
  configurationMode?: { channel: string | null; lastsSeconds: number | null } | null;
  labelProfile?: string | null;
  version?: number | null;
}

export interface Trace {
  deviceId: string;
  deviceName: string;
  modelName: string;
  channel: string;
  calibration: Record<string, unknown> | null;
  calibrationIsOverride: boolean;
  frame: Frame | null;
}

export interface Panel {
  id: string;
  kind: "value" | "line" | "directions" | "alerts" | "asked" | "text";
  title: string;
  pointIds: string[];
  assetId: string | null;
  range: string | null;
  text: string | null;
  x: number;
  y: number;
  w: number;
  h: number;
}

export interface DashboardSummary {
  id: string;
  name: string;
  siteId: string | null;
  panels: number;
  mine: boolean;
}

export interface Dashboard {
  id: string;
  name: string;
  ownerName: string;
  siteId: string | null;
  version: number;
  mayEdit: boolean;
  panels: Panel[];
  points: Point[];
  limitSets: LimitSet[];
}

export interface ShareLink {
  id: string;
  dashboardId: string;
  dashboardName: string;
  note: string;
  createdAt: string;
  until: string | null;
  link: string | null;
}

export interface Grant {
  id: string;
  right: Right;
  targetId: string;
  targetName: string;
  /** The group that was given it; null if it is the person's own. */
  group: string | null;
}

/** People who have rights together. */
export interface Group {
  id: string;
  name: string;
  members: { id: string; name: string }[];
  grants: Grant[];
}

export interface Person {
  id: string;
  name: string;
  email: string;
  owner: boolean;
  grants: Grant[];
}

export interface Invitation {
  id: string;
  name: string;
  email: string;
  right: Right;
  targetId: string;
  targetName: string;
  expiresAt: string;
  link: string | null;
}

export interface MailSettings {
  host: string;
  port: number;
  from: string;
  user: string | null;
  password: string | null;
  startTls: boolean;
}

/** How much is kept, and what is to come at today's rate. */
export interface Records {
  readings: number;
  waiting: number;
  fileBytes: number;
  reusableBytes: number;
  detailBytes: number;
  summaryBytes: number;
  frames: number;
  frameBytes: number;
  freeBytes: number;
  bytesPerReading: number | null;
  readingsPerDay: number | null;
  bytesPerYear: number | null;
  diskFullInDays: number | null;
  trouble: string | null;
  clockRemark: string | null;
  sites: {
    siteId: string;
    name: string;
    readings: number;
    bytes: number;
    points: { pointId: string; number: number; name: string; place: string; readings: number; bytes: number }[];
  }[];
}

/** Days; 0 is for ever. */
export interface KeepDays {
  detail: number;
  hours: number;
  days: number;
}

export interface Keeping {
  standard: KeepDays;
  quantities: Record<string, KeepDays>;
  points: Record<string, KeepDays>;
  frameDays: number;
  dailyFiles: boolean;
  dailyFileDays: number;
}

export interface CheckReport {
  readings: number;
  faults: string[];
}

export interface Backup {
  name: string;
  at: string;
  readings: number;
  bytes: number;
}

/** A change that somebody made in the record. */
export interface Correction {
  id: number;
  at: string;
  person: string;
  note: string;
  points: string[];
  from: string;
  until: string;
  before: number;
  after: number;
  undoneAt: string | null;
  undoneBy: string | null;
}

export interface DecodeAgainReport {
  frames: number;
  undecodable: number;
  same: number;
  changed: number;
  added: number;
  differences: { pointId: string; point: string; time: string; before: number | null; after: number }[];
  correctionId: number | null;
}

/** What the readings of a period come to; null where none can be used. */
export interface Summary {
  from: string;
  until: string;
  count: number;
  bad: number;
  min: number | null;
  max: number | null;
  mean: number | null;
  last: number | null;
  secondsInZone: Record<string, number>;
}

/** Where an outlet passes things on to. */
export type Destination =
  | { kind: "http"; url: string; allowPrivate?: boolean | null }
  | { kind: "mqtt"; url: string; topic: string; username?: string | null; retained?: boolean | null }
  | { kind: "own-broker"; topic: string; retained?: boolean | null };

/** A way out, and how it goes. */
export interface Outlet {
  id: string;
  name: string;
  siteId: string;
  siteName: string;
  state: string;
  reason: string;
  address: string;
  destination: Destination;
  placeIds: string[];
  quantities: string[] | null;
  readings: boolean;
  alerts: boolean;
  form: "json" | "senml";
  waiting: number;
  oldestAt: string | null;
  passed: number;
  dropped: number;
  refused: number;
  passedAt: string | null;
  secretNames: string[];
  /** How often it says that this service lives. */
  lifeSignMinutes: number | null;
}

/** Where somebody is signed in. */
export interface SignedIn {
  id: string;
  purpose: "console" | "client";
  note: string;
  createdAt: string;
  expiresAt: string;
  current: boolean;
}

export interface Token {
  id: string;
  name: string;
  right: "look" | "operate" | "edit";
  places: string[];
  createdAt: string;
  until: string;
  usedAt: string | null;
  token: string | null;
}

export interface TrailEntry {
  number: number;
  at: string;
  person: string;
  kind: string;
  id: string;
  name: string;
  action: string;
  source: string;
  changes: Record<string, { before: unknown; after: unknown }>;
}

export interface Rehearsal {
  since: string;
  until: string;
  readings: number;
  times: number;
  seconds: number;
  alerts: {
    placeId: string;
    pointId: string | null;
    summary: string;
    startedAt: string;
    raisedAt: string;
    overAt: string | null;
  }[];
  holds: { seconds: number; times: number }[];
}

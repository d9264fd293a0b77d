/**
 * The shapes of the service's API under the names that the console uses. They are made from its description
 * (docs/openapi.json), so that the console is not built when the two drift apart. Times are ISO 8601 in UTC.
 */
import type * as Api from "./schema";

/** The same with some parts more exact than the description says. */
type Told<T, More> = Omit<T, keyof More> & More;

/** The same with some parts that are always there in an answer, though a request may leave them out. */
type Filled<T, Parts extends keyof T> = Told<T, { [Part in Parts]-?: NonNullable<T[Part]> }>;

export type Severity = Api.AlertAnswer["severity"];
export type Right = Api.ReasonView["right"];
export type Quantity = Api.PointView["quantity"];
export type Quality = Api.LatestView["quality"];
export type Latest = Api.LatestView;
export type Point = Told<Api.PointView, { formula: Formula | null }>;
/** With a recipe that is not chosen yet. */
export type Formula =
  | Told<Filled<Api.FormulaPrepared, "inputs" | "parameters">, { recipe: Api.FormulaPrepared["recipe"] | "" }>
  | Filled<Api.FormulaWritten, "inputs">
  | Api.FormulaOver
  | Api.FormulaOverTime
  | Api.FormulaWhile;
/** A state of a machine by the values of the point that says it. */
export type StateWish = Api.StatePartsRequestStateRequest;
export type Camera = Api.CameraView;
export type Statistic = Api.FormulaOver["statistic"];
export type Averaging = Api.Averaging;
export type Recipe = Api.RecipeView;
export type FormulaProposal = Api.GalleryProposal;
export type Place = Api.PlaceView;
export type Zone = Api.Zone;
export type LimitSet = Filled<Api.LimitSet, "averaging">;
export type LimitQuestion = Api.LimitQuestion;
export type Series = Api.SeriesView;
export type Gap = Api.SeriesGap;
export type PossibleRecipient = Api.RecipientView;
export type Ways = Api.WaysView;
export type PointRow = Api.PointRow;
export type PointRowView = Api.PointRowView;
export type PointField = Api.PointRowCell["field"];
export type BrowserView = Api.BrowserView;
export type BrowsersView = Api.BrowsersView;
export type TextSettings = Api.TextSettings;
export type LifeSign = Api.LifeSignView;
export type Tested = Api.TestResult;
export type ActiveHours = Api.ActiveHours;
export type DataHealth = Api.DataHealthView;
export type Baseline = Api.BaselineView;
export type Notice = Api.NoticeView;
export type DashboardVersion = Told<Api.DashboardVersionView, { panels: Panel[] }>;
export type RuleFile = Api.RuleFileView;
export type ReportSchedule = Told<Api.ReportScheduleView, { period: string; at: string }>;
export type Consumption = Api.ConsumptionView;
export type Plan = Api.PlanView;
export type Holidays = Api.HolidaysView;
export type Holiday = Holidays["days"][number];
export type LogEntry = Api.LogEntryView;
export type LoggedEvent = Api.EventView;
export type AlertFigures = Api.FiguresView;
export type MailedAlert = Api.MailedAlert;
export type Alert = Told<Api.AlertAnswer, { steps: AlertStep[] }>;
export type AlertState = Api.AlertAnswer["state"];
export type Trend = Api.TrendView;
export type Distribution = Api.DistributionView;
export type AccessReason = Api.ReasonView;
export type SecondFactor = Api.SecondFactorView;
export type Shelf = Api.Shelf;
export type RuleShelf = Api.ShelfView;
export type AlertStep = Told<
  Api.AlertStepView,
  {
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
      | "done"
      | "undone"
      | "closed";
  }
>;
export type Target = Exclude<Api.Target, { kind: "here" }>;
export type Measure = Exclude<Api.Measure, { kind: "difference" }> | Filled<Api.MeasureDifference, "withinSeconds">;
/** A further condition; "here" is a quantity of the place that the rule is judged for. */
export type Term = Told<Filled<Api.Term, "measure" | "deadBand">, { measure: Measure }>;
export type Condition = Api.Condition;
export type Hold = Api.Hold;
export type Round = Api.Round;
export type Rule = Told<Api.Rule, { target: Target; measure: Measure; also: Term[]; rounds: Round[] }>;
export type StarterRules = Told<
  Api.StarterRulesView,
  { proposals: Told<Api.StarterRulesView["proposals"][number], { rule: Rule }>[] }
>;
export type RuleStanding = Api.RuleStanding;
export type Gateway = Api.GatewayView;
export type HeardGateway = Api.HeardGateway;
export type Source = Api.InletSource;
export type SerialLine = Api.SerialLine;
export type Framing = Api.Framing;
export type Contents = Api.Contents;
export type Inlet = Api.InletView;
export type Poll = Api.PollView;
export type Stranger = Api.StrangerView;
export type Proposal = Api.ProposalView;
export type Trial = Api.TrialView;
export type Device = Api.DeviceView;
export type Step = Api.Step;
export type ResponseCheck = Api.CommissioningCheckView;
export type Commissioning = Api.CommissioningView;
export type Command = Api.CommandView;
export type RadioState = Api.RadioStateView;
export type SignalFrame = Api.SignalHeard;
export type Signal = Api.SignalView;
export type GatewayFacts = Api.GatewayPageView;
export type FleetNews = Api.FleetNewsView;
export type Label = Api.LabelView;
export type RadioSettings = Api.RadioSettings;
export type Region = Api.RadioSettingsRegionView;
export type DeviceSetting = Api.DeviceSetting;
export type Power = Api.Power;
export type Tried = Api.WorkbenchTried;
export type ImportReport = Api.ImportReport;
export type Workbench = Api.WorkbenchView;
export type Frame = Api.FrameView;
export type Channel = Api.Channel;
/** The usual way need not be named. */
export type Layout = Exclude<Api.Layout, { format: "bytes" }> | ByteLayout;
export type ByteLayout = Told<Api.ByteLayout, { format?: "bytes" }>;
export type DeviceModel = Api.DeviceModel;
export type Trace = Api.PointTrace;
export type PointSelection = Api.PointSelection;
export type Look = Api.Look;
/** What all panels have is always there in an answer, if only as null. */
interface Framed {
  pointIds: string[];
  selection: PointSelection | null;
  range: string | null;
  look: Look | null;
}
type InFrame<Kind> = Kind extends Api.Panel ? Told<Kind, Framed> : never;
export type Panel = InFrame<Api.Panel>;
export type Purpose = NonNullable<Api.DashboardRequest["purpose"]>;
export type Exposure = Api.ExposureView;
export type DashboardSummary = Api.DashboardSummary;
export type Dashboard = Told<Api.DashboardView, { panels: Panel[]; points: Point[]; limitSets: LimitSet[] }>;
export type ShareLink = Api.ShareView;
export type Grant = Api.PersonGrantView;
export type Group = Api.GroupView;
export type Person = Api.PersonView;
export type Invitation = Api.InvitationView;
export type MailSettings = Api.MailSettings;
export type Records = Api.RecordsView;
export type KeepDays = Api.KeepingSettingsKeepDays;
export type Keeping = Api.KeepingSettings;
export type CheckReport = Api.CheckReport;
export type Backup = Api.BackupView;
export type Correction = Api.CorrectionView;
export type DecodeAgainReport = Api.DecodeAgainReport;
export type Summary = Api.SummaryView;
export type Destination = Api.Destination;
export type Outlet = Api.OutletView;
export type SignedIn = Api.SignedInView;
export type Token = Told<Api.TokenView, { right: Exclude<Right, "manage"> }>;
export type TrailEntry = Api.TrailView;
export type Rehearsal = Api.RehearsalView;
export type Found = Api.FoundView;
export type About = Api.AboutView;
export type Spectrum = Api.SpectrumView;
export type SpectrumKind = Spectrum["kind"];
export type Marker = Api.SpectrumMarker;
export type Finding = Api.SpectrumFindingView;
export type Waveform = Api.WaveformView;
export type KeptWaveform = Api.KeptWaveformView;
export type Waterfall = Api.WaterfallView;
export type Rotation = Api.Rotation;
export type Bearing = Api.Bearing;
export type LimitTrial = Api.LimitTrialView;
export type ShippedPack = Api.PackView;
export type ImportedPack = Api.ImportedPackView;
export type PackPlan = Api.PackPlanView;
export type PackPart = Api.PackPlanPart;
export type Calibration = NonNullable<Api.CalibrationView["calibration"]>;
export type CalibrationStretch = Api.CalibrationView;
export type Units = Api.UnitsView;
export type Starred = Api.StarredView;
export type StarredPage = Starred["pages"][number];
export type UnitChange = Units["changes"][number];

import type { components } from './schema'

type S = components['schemas']

export type Evaluation = S['Answer.Shown']
export type Price = S['Answer.Price']
/** Kinds of job: what may be asked of each, and what it ends in. */
export type JobKinds = S['JobKinds']
export type JobKind = keyof JobKinds
export type Answer = S['Answer']
export type ChapterPatch = S['Answer.ChapterPatch']
export type Line = S['AnswerLine']
export type Finding = S['Answer.Finding']
export type Cure = S['Answer.Cure']
export type RoomVerdict = S['Answer.RoomVerdict']
export type RunVerdict = S['Answer.RunVerdict']
export type Trunk = S['Answer.Trunk']
export type UplinkVerdict = S['Answer.UplinkVerdict']
export type PowerPlan = S['Answer.PowerPlan']
export type SwitchUplink = S['Answer.SwitchUplink']
export type PortUse = S['Answer.PortUse']
export type SwitchBudget = S['Answer.SwitchBudget']
export type RadioSheet = S['Answer.RadioSheet']
export type SettingsSheet = S['Answer.SettingsChapter']
export type SignalChapter = S['Answer.SignalChapter']
export type Totals = S['Answer.Totals']
export type CameraView = S['Answer.CameraView']
export type GearList = S['GearList']
export type GearRow = GearList['rows'][number]
export type Relief = S['Relief']
export type View = S['PreviewRequest.View']
export type Catalogue = S['Catalogue']
export type Role = S['Catalogue.Role']
export type DeviceModel = S['Catalogue.DeviceModel']
export type Job = S['Job']
export type Figure = S['Catalogue.Figure']
export type Practices = S['Practices']
export type Practice = Practices['own'][number]
export type MatterRow = S['PracticeView']['rows'][number]
export type ControllerView = S['ControllerView']
export type SeenSpeed = S['SeenSpeeds']['speeds'][number]
export type KeysView = S['KeysView']
export type KeyRow = KeysView['rows'][number]
export type VouchersView = S['VouchersView']
export type VoucherRow = VouchersView['rows'][number]
export type RoundRow = NonNullable<S['RoundView']['round']>
export type Debrief = NonNullable<RoundRow['debrief']>
export type PortalSheet = NonNullable<SettingsSheet['portals']>[number]
export type VoucherSheet = NonNullable<SettingsSheet['vouchers']>[number]
export type KeyTold = S['KeyTold']
export type BringStep = S['BringUp']['steps'][number]
export type BringItem = BringStep['items'][number]
export type SettingsRead = S['SettingsRead']
export type Measurement = S['Measurement']
export type ScanView = S['ScanView']
export type Gesture = S['GestureMade']['gesture']
export type SectionView = S['SectionView']
export type SiteView = S['SiteView']
export type FarView = S['FarView']
export type FarLine = FarView['lines'][number]
export type FarWays = S['FarWays']
export type LandView = S['LandView']
export type FarOffer = FarWays['ways'][number]
export type LineChannel = NonNullable<FarWays['channel']>
export type RevisionDifference = S['RevisionDifference']
export type RevisionLine = S['RevisionList.RevisionLine']
export type SiteSketch = S['SiteSketch']
export type DiagramView = S['DiagramView']
export type DiagramNode = DiagramView['diagram']['nodes'][number]
export type DiagramCard = DiagramView['picture']['cards'][number]
export type Setting = S['HeldSettings']['settings'][number]
export type Inspection = S['Inspection']
export type Walk = S['Walk']
export type BandView = S['BandView']
export type BusyView = S['BusyView']
export type WidthView = S['WidthView']
export type Remedy = S['Remedies.Remedy']
export type MeshView = S['MeshView']
export type MeshLink = S['MeshView.MeshLink']
export type CalibrationView = S['CalibrationView']
export type Residual = S['CalibrationView.Residual']
export type Proposed = S['SurveyRead.Proposed']
export type Neighbour = ElementOf<'neighbour'>
export type ScanRead = S['ScanRead']
export type WalkPoint = S['WalkAsked.WalkPoint']
export type SpotView = S['SpotView']
export type Ray = S['SpotView.Ray']
export type LevelReading = S['LevelList.LevelReading']
export type ProjectDocument = S['ProjectDocument']
export type ProjectLine = S['ProjectList.ProjectLine']
export type Standing = ProjectLine['stand']
export type TestedCable = S['TestedCables.TestedCable']
export type CableTestSaid = S['CableTestSaid']
export type Order = S['Order']
export type OrderLine = S['Order.PartLine']
export type OrderTask = S['Order.LabourLine']
export type Where = S['Order.Where']
export type Offer = S['OfferList.Offer']
export type WorkList = S['WorkList']
export type Step = S['WorkList.Step']
export type StepStand = S['WorkList.StepStand']
export type Tick = S['Ticks.Tick']
export type TestsRead = S['TestsRead']
export type SeenPort = S['SeenPorts.SeenPort']
export type SwitchDraw = S['SeenPorts.SwitchDraw']
export type Snag = S['SnagList.Snag']
export type SnagSaid = S['Snags.Said']
export type HandoverView = S['HandoverView']
export type Handover = S['HandoverView.Handover']
export type OpenPoint = S['HandoverView.OpenPoint']
export type DeviceState = S['HandoverView.DeviceState']
export type Difference = S['HandoverView.Difference']
export type Progress = S['ProjectProgress']
export type PastHandover = S['HandoverView.PastHandover']
export type PricesRead = S['PricesRead']
export type FirmSaid = S['FirmSaid']
export type DemoSite = S['DemoList.DemoLine']

export type ElementTables = Required<S['ProjectDocument.Elements']>
export type Kind = keyof ElementTables
export type ElementOf<K extends Kind> = ElementTables[K][number]
export type AnyElement = ElementOf<Kind>
export type Site = ElementOf<'site'>
export type Floor = ElementOf<'floor'>
export type Wall = ElementOf<'wall'>
export type Opening = ElementOf<'opening'>
export type Space = ElementOf<'space'>
export type Device = ElementOf<'device'>
export type Riser = ElementOf<'riser'>
export type Building = ElementOf<'building'>
export type Duct = ElementOf<'duct'>
export type BuriedService = ElementOf<'buried_service'>
export type FarPoint = ElementOf<'far_point'>
export type Grove = ElementOf<'grove'>
export type EquipmentRoom = ElementOf<'equipment_room'>
export type Panel = ElementOf<'panel'>
export type Socket = ElementOf<'socket'>
export type MainsRoute = ElementOf<'mains_route'>
export type Light = ElementOf<'light'>
export type RackChapter = S['Answer.RackChapter']
export type Elevation = S['Answer.Elevation']
export type RackSpot = S['Job.RackSpot']
export type Thing = S['Answer.Thing']
export type Cord = S['Answer.Cord']

export type Point = [number, number]
export type Change =
  | { op: 'put'; kind: Kind; element: AnyElement }
  | { op: 'remove'; kind: Kind; id: string }

export interface Problem {
  where: string
  what: string
}

type Asked = S['Followed.RoomQuestion']
type Answered = S['Followed.RoomAnswer']
export type RoomQuestion = Omit<Asked, 'answers'> & { answers: (Omit<Answered, 'changes'> & { changes: Change[] })[] }
/** What walls and rooms do after a gesture. */
export interface Followed {
  changes: Change[]
  questions: RoomQuestion[]
}

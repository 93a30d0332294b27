import type { components } from './schema'

/** The client gives pairs of numbers as plain lists; so do these names. */
type Loose<T> = T extends [number, number]
  ? number[]
  : T extends (infer Item)[]
    ? Loose<Item>[]
    : T extends object
      ? { [Key in keyof T]: Loose<T[Key]> }
      : T
type All = components['schemas']
type Schemas = { [Name in keyof All]: Loose<All[Name]> }

export type ProblemBody = {
  type: string
  title: string
  status: number
  detail: string
  errors: { path: string; message: string; value?: string }[]
  current?: Record<string, unknown> | null
}
export type Procedure = Schemas['Procedure']
export type Pass = Schemas['Pass']
export type BaseMetal = Schemas['BaseMetal']
export type Joint = Schemas['Joint']
export type Thermal = Schemas['Thermal']
export type PassRecord = Schemas['PassRecord']
export type CouponPiece = Schemas['CouponPiece']
export type Evaluation = Schemas['Evaluation']
export type Finding = Schemas['Finding']
export type Drawing = Schemas['Drawing']
export type PassHeat = Schemas['PassHeat']
export type PassResult = Schemas['PassResult']
export type Range = Schemas['Range']
export type Kind = Schemas['KindOut']
export type Code = Schemas['CodeOut']
export type Job = Schemas['JobOut']
export type Session = Schemas['SessionOut']
export type Person = Schemas['PersonOut']
export type RevisionLine = Schemas['RevisionLineOut']
export type Revision = Schemas['RevisionOut']
export type CouponLine = Schemas['CouponLineOut']
export type Coupon = Schemas['CouponOut']
export type PassRow = Schemas['PassRowOut']
export type Flag = Schemas['Flag']
export type Recording = Schemas['RecordingOut']
export type RecordingLine = Schemas['RecordingLineOut']
export type Trace = Schemas['TraceOut']
export type Live = Schemas['LiveOut']
export type Mapping = Schemas['Mapping']
export type Fault = Schemas['Fault']
export type PassMeasured = Schemas['PassMeasured']
export type Answer = Schemas['Answer']
export type System = 'si' | 'us'
export type Decoded = Schemas['Decoded']
export type GasNamed = Schemas['GasOut']
export type Citation = Schemas['Citation']
export type Equivalent = Schemas['Equivalent']
export type MetalFound = Schemas['MetalOut']
export type FillerFound = Schemas['FillerOut']
export type GasFound = Schemas['GasFound']
export type ShelfRecord = Schemas['RecordOut']
export type Machine = Schemas['Machine']
export type Product = Schemas['Product']
export type OwnMetal = Schemas['OwnMetal']
export type Use = Schemas['UseOut']
export type BalanceDial = Schemas['BalanceDial']
export type Certificate = Schemas['Certificate']
export type TungstenKind = Schemas['TungstenType']
export type DialCalibration = Schemas['DialCalibration']
export type Supply = Schemas['Supply']
export type Envelope = Schemas['Envelope']
export type Intent = Schemas['Intent']
export type Proposal = Schemas['ProposalOut']
export type Reason = Schemas['Reason']
export type HeatChart = Schemas['HeatChart']
export type ThermalView = Schemas['ThermalView']
export type JointUse = Schemas['Use']
export type Trial = Schemas['Trial']
export type TrialRow = Schemas['TrialOut']
export type PreparedSide = Schemas['PreparedSide']

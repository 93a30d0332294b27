export { CouponTabs } from './CouponTabs'
export { OldRecordDialog } from './OldRecordDialog'
export { ProofPanel } from './ProofPanel'
export { draftCoverageQuery } from './queries'

export { CouponTabs } from './CouponTabs'
export { ProofPanel } from './ProofPanel'
export { draftCoverageQuery } from './queries'

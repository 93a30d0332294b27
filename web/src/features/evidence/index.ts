export { CouponTabs } from './CouponTabs'
export { OldRecordDialog } from './OldRecordDialog'
export { SignDialog } from './SignDialog'
export { STATE_WORDS } from './states'

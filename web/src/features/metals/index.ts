export { CertificateDialog } from './CertificateDialog'

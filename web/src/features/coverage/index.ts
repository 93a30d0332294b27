export { ProofPanel } from './ProofPanel'

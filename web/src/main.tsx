import './index.css'
import { speak } from './session/language'

// Texts are read as modules are loaded, so the language comes first.
await speak()
await import('./start')

import en from './en.teaching.json'
import report from '../../../core/report/words/en.json'
import './windows'
import { addWords } from './words'

// The wording of the teachers' screens comes with them.
await addWords(en, { de: () => import('./de.teaching.json') })
// Reports speak the same words as files, which the server writes.
await addWords(report, { de: () => import('../../../core/report/words/de.json') })

import en from './en.teaching.json'
import './windows'
import { addWords } from './words'

// The wording of the teachers' screens comes with them.
await addWords(en, { de: () => import('./de.teaching.json') })

import en from './en.prepare.json'
import { addWords } from './words'

// The wording of the place where boards are prepared comes with it.
await addWords(en, { de: () => import('./de.prepare.json') })

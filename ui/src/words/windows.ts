import en from './en.windows.json'
import { addWords } from './words'

// The wording of windows that open on the frame comes with the first of them.
await addWords(en, { de: () => import('./de.windows.json') })

import en from './en.teaching.json'
import { addWords } from './words'

// The wording of the teachers' screens comes with them.
addWords(en)

import i18next from 'i18next'
import { initReactI18next } from 'react-i18next'
import en from './en.json'

/** Sets up the wording. All of it stands in message files; English is the first. */
export function startWords() {
  void i18next.use(initReactI18next).init({
    lng: 'en',
    fallbackLng: 'en',
    resources: { en: { translation: en } },
    interpolation: { escapeValue: false },
  })
  const tellPage = (language: string) => {
    document.documentElement.lang = language
    document.documentElement.dir = i18next.dir(language)
  }
  i18next.on('languageChanged', tellPage)
  tellPage(i18next.language ?? 'en')
}

/** Adds the wording of screens that are loaded later. */
export function addWords(words: object) {
  i18next.addResourceBundle('en', 'translation', words, true, true)
}

const relative = new Intl.RelativeTimeFormat('en', { numeric: 'auto', style: 'short' })
const steps: Array<[Intl.RelativeTimeFormatUnit, number]> = [
  ['day', 86_400_000],
  ['hour', 3_600_000],
  ['minute', 60_000],
]

/** How long ago a time was, in words; null when it is less than a minute. */
export function ago(at: number, now: number): string | null {
  for (const [unit, ms] of steps) {
    if (now - at >= ms) return relative.format(-Math.floor((now - at) / ms), unit)
  }
  return null
}

const dateTime = new Intl.DateTimeFormat('en', { dateStyle: 'medium', timeStyle: 'short' })

/** A day and time in words. */
export const when = (iso: string) => dateTime.format(new Date(iso))

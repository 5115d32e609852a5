import i18next from 'i18next'
import { initReactI18next } from 'react-i18next'
import type { Language } from '../wire/types.gen'
import en from './en.json'

type Words = Record<string, unknown>
type Load = () => Promise<{ default: Words }>

/** The wording of each screen in the other languages, loaded when one of them is spoken. */
const others: Array<Record<Exclude<Language, 'en'>, Load>> = []
const remembered = 'alpenglow language'

/** Sets up the wording. All of it stands in message files; English comes with the page. */
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
  tellPage(i18next.language)
  others.push({ de: () => import('./de.json') })
}

async function load(language: Language, from: (typeof others)[number]) {
  if (language === 'en') return
  i18next.addResourceBundle(language, 'translation', (await from[language]()).default, true, true)
}

/** Adds the wording of screens that are loaded later; wait for it before they are shown. */
export async function addWords(words: object, other: (typeof others)[number]) {
  i18next.addResourceBundle('en', 'translation', words, true, true)
  others.push(other)
  await load(i18next.language as Language, other)
}

/** Changes the language of the page; without its wording, as without network, it stays. */
export async function speak(language: Language) {
  if (language === i18next.language) return
  try {
    await Promise.all(others.map((from) => load(language, from)))
  } catch {
    return // what is there is better than nothing
  }
  await i18next.changeLanguage(language)
}

/** The language that was spoken on this device last, for a teacher whose settings are not known yet. */
export function lastLanguage(): Language | null {
  try {
    return localStorage.getItem(remembered) as Language | null
  } catch {
    return null
  }
}

/** Notes the language of whoever teaches on this device. */
export function rememberLanguage(language: Language) {
  try {
    localStorage.setItem(remembered, language)
  } catch {
    // A browser that keeps nothing begins in English.
  }
}

let region = ''

/** How dates and numbers are written: a language tag, or '' as the language has it. */
export function writeAs(tag: string) {
  region = tag
}

const made = new Map<string, Intl.RelativeTimeFormat | Intl.DateTimeFormat>()

function format<F extends Intl.RelativeTimeFormat | Intl.DateTimeFormat>(kind: string, make: (tag: string) => F): F {
  const tag = region || i18next.language
  const key = `${kind} ${tag}`
  if (!made.has(key)) made.set(key, make(tag))
  return made.get(key) as F
}

const steps: Array<[Intl.RelativeTimeFormatUnit, number]> = [
  ['day', 86_400_000],
  ['hour', 3_600_000],
  ['minute', 60_000],
]

/** How long ago a time was, in words; null when it is less than a minute. */
export function ago(at: number, now: number): string | null {
  for (const [unit, ms] of steps) {
    if (now - at < ms) continue
    // Words are the language's, whatever the region.
    const { language } = i18next
    const key = `ago ${language}`
    if (!made.has(key)) made.set(key, new Intl.RelativeTimeFormat(language, { numeric: 'auto', style: 'short' }))
    return (made.get(key) as Intl.RelativeTimeFormat).format(-Math.floor((now - at) / ms), unit)
  }
  return null
}

/** A day and time in words. */
export const when = (iso: string) =>
  format('when', (tag) => new Intl.DateTimeFormat(tag, { dateStyle: 'medium', timeStyle: 'short' })).format(
    new Date(iso),
  )

/** A moment in milliseconds since 1970: the day of the week, the day and the time, by the clock of this device. */
export const whenAt = (at: number) =>
  format(
    'whenAt',
    (tag) =>
      new Intl.DateTimeFormat(tag, {
        weekday: 'short',
        month: 'short',
        day: 'numeric',
        hour: '2-digit',
        minute: '2-digit',
      }),
  ).format(at)

/** A time of day. */
export const clock = (at: number) =>
  format('clock', (tag) => new Intl.DateTimeFormat(tag, { hour: '2-digit', minute: '2-digit' })).format(at)

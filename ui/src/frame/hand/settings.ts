import type { Align, Fill, Form, Heads, Ink, List, Sign, Tint } from '../../wire/types.gen'

type Drawing = { ink: Ink; width: number }

/** What each tool is set to; each keeps its own. */
export type Settings = {
  pen: Drawing
  marker: Drawing
  highlighter: Drawing
  brush: Drawing
  eraser: { radius: number; part: boolean }
  select: { lasso: boolean }
  note: { tint: Tint; size: number }
  text: { ink: Ink; size: number; bold: boolean; align: Align; list: List }
  shape: { form: Form; ink: Ink; fill: Fill; width: number; dash: boolean }
  connector: { ink: Ink; width: number; heads: Heads; dash: boolean }
  stamp: { sign: Sign }
  tidy: { offers: boolean }
}

/** The widths that each tool offers, thin to thick. */
export const widths = {
  pen: [4, 8, 16],
  marker: [12, 20, 32],
  highlighter: [24, 36, 52],
  brush: [10, 20, 36],
  shape: [3, 6, 12],
  connector: [3, 6, 12],
  eraser: [10, 24, 60],
} as const

/** Sizes of letters, small to large. */
export const noteSizes = [22, 28, 40] as const
export const textSizes = [28, 40, 60, 90] as const

const start: Settings = {
  pen: { ink: 'night', width: 8 },
  marker: { ink: 'lake', width: 20 },
  highlighter: { ink: 'ember', width: 36 },
  brush: { ink: 'plum', width: 20 },
  eraser: { radius: 24, part: true },
  select: { lasso: false },
  note: { tint: 'apricot', size: 28 },
  text: { ink: 'night', size: 40, bold: false, align: '', list: '' },
  shape: { form: 'rect', ink: 'night', fill: '', width: 6, dash: false },
  connector: { ink: 'night', width: 6, heads: 'to', dash: false },
  stamp: { sign: 'right' },
  tidy: { offers: true },
}

const KEY = 'tools'

/** What the tools were set to on this device the last time. */
export function loadSettings(): Settings {
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Settings>
    const merged = Object.entries(start).map(([tool, usual]) => [tool, { ...usual, ...kept[tool as keyof Settings] }])
    return Object.fromEntries(merged) as Settings
  } catch {
    return start
  }
}

export function saveSettings(settings: Settings) {
  try {
    localStorage.setItem(KEY, JSON.stringify(settings))
  } catch {
    // Without storage they last as long as the page.
  }
}

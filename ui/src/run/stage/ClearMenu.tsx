import { isAnswer } from '../../rules/answers'
import { Eraser } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { useTranslation } from 'react-i18next'
import type { Element } from '../../wire/types.gen'
import { useLesson, useLessonState } from '../../wire/hooks/useLesson'
import { isRemoved } from '../../rules/standing'

/** What came in the last so many minutes may be cleared together. */
const recent = [1, 5]

/** Clears one person's work, everybody's or one's own from a sheet; one undo brings it back. */
export function ClearMenu({ sheet, marks }: { sheet: string; marks: readonly Element[] }) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const people = useLessonState((s) => s.people)
  const authors = new Set(marks.filter((m) => !isAnswer(m) && !isRemoved(m)).map((m) => m.author ?? ''))
  if (authors.size === 0) return null
  const clear = (author?: string) => lesson.do(sheet, { kind: 'clear', clear: author ? { author } : {} })
  const students = [...authors]
    .filter((id) => people.has(id))
    .map((id) => people.get(id)!)
    .sort((a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }))
  const item = 'cursor-default rounded-lg px-3 py-2 outline-none data-[highlighted]:bg-mist'
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="inline-flex h-9 items-center gap-1.5 rounded-lg px-2.5 text-[13px] font-semibold text-slate hover:bg-mist hover:text-night">
        <Eraser size={17} aria-hidden="true" />
        {t('clear.open')} …
      </DropdownMenu.Trigger>
      <DropdownMenu.Content
        align="end"
        side="top"
        sideOffset={6}
        className="z-30 max-h-[60vh] w-60 overflow-auto rounded-xl border border-line bg-paper p-1 shadow-lg"
      >
        <DropdownMenu.Label className="px-3 py-1 text-[13px] text-slate">{t('clear.hint')}</DropdownMenu.Label>
        <DropdownMenu.Item className={item} onSelect={() => clear()}>
          {t('clear.all')}
        </DropdownMenu.Item>
        {recent.map((m) => (
          <DropdownMenu.Item
            key={m}
            className={item}
            onSelect={() =>
              lesson.do(sheet, { kind: 'clear', clear: { since: (lesson.clock.now() ?? Date.now()) - m * 60_000 } })
            }
          >
            {t('clear.recent', { count: m })}
          </DropdownMenu.Item>
        ))}
        {authors.has('staff') && (
          <DropdownMenu.Item className={item} onSelect={() => clear('staff')}>
            {t('clear.mine')}
          </DropdownMenu.Item>
        )}
        {students.map((p) => (
          <DropdownMenu.Item key={p.id} className={item} onSelect={() => clear(p.id)}>
            {t('clear.one', { name: p.name })}
          </DropdownMenu.Item>
        ))}
      </DropdownMenu.Content>
    </DropdownMenu.Root>
  )
}

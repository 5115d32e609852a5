import { MessageCircleQuestion } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { useTranslation } from 'react-i18next'
import { useHandState } from '../../frame/hand/useHand'
import { option } from '../../polls/kinds'
import type { Element, Frame, Option } from '../../wire/types.gen'
import { isHeld, isHidden, isRemoved } from '../../rules/standing'
import { useStaffLesson } from '../../wire/hooks/useStaff'
import type { Staff } from '../../wire/lesson'

/** How many things may be chosen among, and put in order (core/poll). */
const most = { choose: 12, rank: 8 }
const LETTERS = 300

/**
 * What is asked about: the notes that are selected, or all that the class sees, those with which most agree first; each
 * of the same words once.
 */
function asked(marks: readonly Element[], selected: ReadonlySet<string>): string[] {
  const notes = marks.filter(
    (m) => m.kind === 'note' && !isRemoved(m) && !isHidden(m) && !isHeld(m) && m.author && m.note.text.trim(),
  )
  const chosen = notes.filter((m) => selected.has(m.id))
  const words = (chosen.length > 1 ? chosen : notes)
    .sort((a, b) => (b.agreed?.length ?? 0) - (a.agreed?.length ?? 0) || a.at - b.at)
    .map((m) => (m.kind === 'note' ? m.note.text.trim().slice(0, LETTERS) : ''))
  return [...new Map(words.map((w) => [w.toLocaleLowerCase(), w])).values()]
}

const bodies = {
  choose: (options: Option[]) => ({ kind: 'choice' as const, choice: { options } }),
  rank: (options: Option[]) => ({ kind: 'rank' as const, rank: { options } }),
}

/** Turns notes into a question with two taps: choose among them, or put them in order. */
export function AskAbout({ staff, frame, marks }: { staff: Staff; frame: Frame; marks: readonly Element[] }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const selected = useHandState((s) => s.selected)
  const options = asked(marks, selected)
  if (options.length < 2) return null
  const at = staff.board.frames.findIndex((f) => f.id === frame.id) + 1
  const ask = (way: keyof typeof most) =>
    void lesson.addFrame(at, {
      kind: 'question',
      question: {
        asked: {
          text: t(`askAbout.${way}Text`, { title: frame.title }).trim(),
          ...bodies[way](options.slice(0, most[way]).map((text) => option(text))),
        },
      },
    })
  const item = 'cursor-default rounded-lg px-3 py-2 outline-none data-[highlighted]:bg-mist'
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="inline-flex h-9 items-center gap-1.5 rounded-lg px-2.5 text-[13px] font-semibold text-slate hover:bg-mist hover:text-night">
        <MessageCircleQuestion size={17} aria-hidden="true" />
        {t('askAbout.open')} …
      </DropdownMenu.Trigger>
      <DropdownMenu.Content
        align="end"
        side="top"
        sideOffset={6}
        className="z-30 w-72 rounded-xl border border-line bg-paper p-1 shadow-lg"
      >
        <DropdownMenu.Label className="px-3 py-1 text-[13px] text-slate">{t('askAbout.hint')}</DropdownMenu.Label>
        {(['choose', 'rank'] as const).map((way) => (
          <DropdownMenu.Item key={way} className={item} onSelect={() => ask(way)}>
            {t(`askAbout.${way}`, { count: Math.min(options.length, most[way]) })}
          </DropdownMenu.Item>
        ))}
      </DropdownMenu.Content>
    </DropdownMenu.Root>
  )
}

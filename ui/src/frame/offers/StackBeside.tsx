import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import type { Element } from '../../wire/types.gen'
import { useBench } from '../../wire/hooks/useLesson'
import { useHand } from '../hand/useHand'
import { textOf } from '../paint/geometry'
import '../../words/windows'

/** The notes of the stack that is selected, with who wrote them, beside the frame; the teacher takes them apart. */
export default function StackBeside({ top, under }: { top: Element; under: readonly Element[] }) {
  const { t } = useTranslation()
  const bench = useBench()
  const hand = useHand()
  const { sheet, me, preparing } = hand.ground
  const all = [top, ...under]
  return (
    <section
      aria-label={t('stack.title', { count: all.length })}
      data-part="stack"
      data-own-hand
      className="flex shrink-0 flex-col gap-2 overflow-auto border-line bg-mist p-2 max-sm:max-h-56 max-sm:border-t sm:w-60 sm:border-s"
    >
      <h3 className="text-sm font-semibold">{t('stack.title', { count: all.length })}</h3>
      <ul className="flex flex-col gap-2">
        {all.map((m) => (
          <li key={m.id} className="rounded-lg border border-line bg-paper p-2">
            <p className="text-sm font-semibold text-slate">{hand.nameOf(m.author)}</p>
            <p dir="auto" className="break-words whitespace-pre-wrap">
              {textOf(m)}
            </p>
          </li>
        ))}
      </ul>
      {me === 'staff' && !preparing && sheet !== null && (
        <Button
          className="self-start"
          onClick={() => bench.do(sheet, { kind: 'stack', stack: { marks: all.map((m) => m.id) } })}
        >
          {t('stack.apart')}
        </Button>
      )}
    </section>
  )
}

import { Eye, EyeOff } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { onMark } from '../../rules/apply'
import { isNowhere } from '../../rules/pieces'
import { isHidden } from '../../rules/standing'
import type { Element } from '../../wire/types.gen'
import { useLesson } from '../../wire/hooks/useLesson'

/** Hides a student's mark from the class, or brings it back. */
export function Moderate({ mark, sheet }: { mark: Element; sheet: string }) {
  const { t } = useTranslation()
  const lesson = useLesson()
  if (isNowhere(mark)) return null
  const kind = isHidden(mark) ? 'show' : 'hide'
  const Sign = isHidden(mark) ? Eye : EyeOff
  return (
    <Button onClick={() => lesson.do(sheet, onMark(kind, mark.id))}>
      <Sign size={17} aria-hidden="true" />
      {t(`run.${kind}`)}
    </Button>
  )
}

import { useTranslation } from 'react-i18next'
import { useParams, useSearchParams } from 'react-router'
import { Trial } from '../wire/trial'
import { BenchProvider, useLessonFrom } from '../wire/hooks/useLesson'
import { Lesson } from './StudentLesson'

/** The student's screen on a board that is being prepared, without a session. */
export function TryLesson() {
  const { board = '', frame = '' } = useParams()
  const [search] = useSearchParams()
  const lifted = search.get('lifted') === 'true'
  return <Trying key={`${board} ${frame} ${lifted}`} board={board} frame={frame} lifted={lifted} />
}

function Trying({ board, frame, lifted }: { board: string; frame: string; lifted: boolean }) {
  const { t } = useTranslation()
  const trial = useLessonFrom(() => new Trial(board, frame, lifted, t('student.trialName')))
  return (
    <BenchProvider value={trial}>
      <Lesson />
    </BenchProvider>
  )
}

import { FrontLesson } from '../../wire/front'
import { FrontScreen } from '../../shown/FrontScreen'
import type { Front } from '../../wire/types.gen'
import { BenchProvider, useLessonFrom } from '../../wire/hooks/useLesson'

type Props = {
  session: string
  /** What would be seen of something; without it, what is seen now. */
  of?: Front
  label: string
}

/** A small picture of the front screen, painted as it is there, from what the server lets it see. */
export function FrontPicture({ of, ...props }: Props) {
  return <Picture key={JSON.stringify(of ?? null)} of={of} {...props} />
}

function Picture({ session, of, label }: Props) {
  const lesson = useLessonFrom(() => new FrontLesson(session, of ? { at: of } : { now: true }))
  return (
    <BenchProvider value={lesson}>
      <div
        role="img"
        aria-label={label}
        data-part="front-picture"
        className="aspect-16/10 w-full overflow-hidden rounded-lg border border-edge"
      >
        <div inert className="size-full">
          <FrontScreen session={session} />
        </div>
      </div>
    </BenchProvider>
  )
}

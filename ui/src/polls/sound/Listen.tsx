import { useTranslation } from 'react-i18next'
import { pictureURL } from '../../frame/pictures/pictures'

/** Something to hear; it is kept where pictures are. */
export function Listen({ sound }: { sound: string }) {
  const { t } = useTranslation()
  return (
    // oxlint-disable-next-line jsx-a11y/media-has-caption -- what is said in it the question says in words, or asks for
    <audio
      controls
      preload="metadata"
      aria-label={t('poll.listen')}
      src={pictureURL(sound)}
      className="w-full max-w-md"
    />
  )
}

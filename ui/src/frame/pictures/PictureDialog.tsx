import { Camera, Image } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { Dialog } from '../../kit/windows/Dialog'
import '../../words/windows'

type Props = { onClose: () => void; onFiles: (files: File[]) => void; onCamera: () => void }

/** Asks where a picture comes from. */
export default function PictureDialog({ onClose, onFiles, onCamera }: Props) {
  const { t } = useTranslation()
  const hasCamera = typeof navigator.mediaDevices?.getUserMedia === 'function'
  return (
    <Dialog open onOpenChange={onClose} title={t('picture.title')} text={t('picture.text')}>
      <div className="flex flex-wrap gap-3">
        <label className="inline-flex cursor-pointer items-center gap-2 rounded-lg bg-dusk px-4 py-2.5 font-semibold text-paper has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-dusk">
          <Image size={20} aria-hidden="true" />
          {t('picture.choose')}
          <input
            type="file"
            multiple
            accept="image/png,image/jpeg,image/webp,image/gif,image/svg+xml"
            className="sr-only"
            onChange={(e) => onFiles([...(e.target.files ?? [])])}
          />
        </label>
        {hasCamera && (
          <button
            type="button"
            className="inline-flex items-center gap-2 rounded-lg border border-edge px-4 py-2.5 font-semibold hover:bg-mist"
            onClick={onCamera}
          >
            <Camera size={20} aria-hidden="true" />
            {t('picture.camera')}
          </button>
        )}
      </div>
    </Dialog>
  )
}

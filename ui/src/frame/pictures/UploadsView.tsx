import { X } from 'lucide-react'
import { Suspense } from 'react'
import { useTranslation } from 'react-i18next'
import { part } from '../../kit/part'
import '../../words/windows'
import type { UploadsHere } from './Uploads'

const CameraView = part(() => import('./CameraView'))
const PictureDialog = part(() => import('./PictureDialog'))

/** Where pictures come from, and those that are on their way, each of which can be stopped. */
export default function UploadsView({ uploads }: { uploads: UploadsHere }) {
  const { t } = useTranslation()
  return (
    <>
      {uploads.asking && (
        <Suspense fallback={null}>
          <PictureDialog
            onClose={uploads.close}
            onFiles={uploads.add}
            onCamera={() => {
              uploads.close()
              uploads.toCamera(true)
            }}
          />
        </Suspense>
      )}
      {uploads.camera && (
        <Suspense fallback={null}>
          <CameraView onClose={() => uploads.toCamera(false)} onTake={(file) => uploads.add([file])} />
        </Suspense>
      )}
      <ul
        className="absolute start-3 top-3 z-10 flex w-60 flex-col gap-2 empty:hidden"
        aria-label={t('upload.running')}
      >
        {uploads.running.map((u) => (
          <li
            key={u.id}
            className="flex items-center gap-2 rounded-xl border border-line bg-paper p-2 ps-3 text-sm shadow-md"
          >
            <span className="min-w-0 grow">
              <span className="block truncate">{u.name}</span>
              {u.waits ? (
                <span role="status" className="block text-amber">
                  {t('upload.waits')}
                </span>
              ) : (
                <progress aria-label={u.name} value={u.share} max={1} className="block h-2 w-full accent-dusk" />
              )}
            </span>
            <button
              type="button"
              aria-label={t('upload.stop', { name: u.name })}
              className="grid size-9 place-items-center rounded-lg text-slate hover:bg-mist"
              onClick={u.cancel}
            >
              <X size={17} aria-hidden="true" />
            </button>
          </li>
        ))}
      </ul>
    </>
  )
}

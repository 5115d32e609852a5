import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { Dialog } from '../../kit/windows/Dialog'
import '../../words/windows'

type Props = { onClose: () => void; onTake: (file: File) => void }

/** Takes a picture with the device's camera. */
export default function CameraView({ onClose, onTake }: Props) {
  const { t } = useTranslation()
  const video = useRef<HTMLVideoElement>(null)
  const [state, setState] = useState<'waiting' | 'ready' | 'none'>('waiting')
  useEffect(() => {
    let stream: MediaStream | null = null
    let gone = false
    navigator.mediaDevices
      .getUserMedia({ video: { facingMode: 'environment', width: { ideal: 1920 } } })
      .then(async (found) => {
        stream = found
        if (gone || !video.current) return stop()
        video.current.srcObject = found
        await video.current.play()
        setState('ready')
      })
      .catch(() => !gone && setState('none'))
    const stop = () => stream?.getTracks().forEach((track) => track.stop())
    return () => {
      gone = true
      stop()
    }
  }, [])
  function take() {
    const from = video.current
    if (!from) return
    const canvas = document.createElement('canvas')
    canvas.width = from.videoWidth
    canvas.height = from.videoHeight
    canvas.getContext('2d')?.drawImage(from, 0, 0)
    canvas.toBlob(
      (blob) => {
        if (blob) onTake(new File([blob], t('picture.photo'), { type: 'image/jpeg' }))
        onClose()
      },
      'image/jpeg',
      0.9,
    )
  }
  return (
    <Dialog open onOpenChange={onClose} title={t('picture.camera')}>
      {state === 'none' ? (
        <p role="alert">{t('picture.noCamera')}</p>
      ) : (
        <>
          <video ref={video} muted playsInline className="aspect-video w-full rounded-xl bg-night object-contain" />
          <div className="mt-4 flex justify-end gap-2">
            <Button onClick={onClose}>{t('cancel')}</Button>
            <Button look="main" disabled={state !== 'ready'} onClick={take}>
              {t('picture.take')}
            </Button>
          </div>
        </>
      )}
    </Dialog>
  )
}

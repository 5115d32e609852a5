import { DropdownMenu } from 'radix-ui'
import { Check } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import '../words/windows'
import type { Element } from '../wire/types.gen'
import { useHand, useHandState } from './hand/useHand'
import { ViewSign, viewButton, type Window } from './viewSign'
import { canSpeak, speak } from './hand/speech'

/** How the frame is looked at: names, one person's work, as a list, read aloud, help. Loaded when first opened. */
export default function ViewMenu({ marks, onOpen }: { marks: readonly Element[]; onOpen: (what: Window) => void }) {
  const { t } = useTranslation()
  const hand = useHand()
  const names = useHandState((s) => s.names)
  const only = useHandState((s) => s.only)
  const authors = [...new Set(marks.map((m) => m.author).filter((a) => a !== undefined))].sort((a, b) =>
    hand.nameOf(a).localeCompare(hand.nameOf(b), undefined, { numeric: true }),
  )
  const item =
    'flex cursor-default items-center gap-2 rounded-lg px-3 py-2 outline-none data-[highlighted]:bg-mist data-[disabled]:text-edge'
  const tick = (on: boolean) => <Check size={16} aria-hidden="true" className={on ? 'text-dusk' : 'invisible'} />
  return (
    <DropdownMenu.Root modal={false} defaultOpen>
      <DropdownMenu.Trigger className={viewButton(only !== null || names)}>
        <ViewSign word={only ? hand.nameOf(only) : t('view.menu')} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Content
        align="end"
        sideOffset={6}
        className="z-30 max-h-[60vh] w-64 overflow-auto rounded-xl border border-line bg-paper p-1 shadow-lg"
      >
        <DropdownMenu.CheckboxItem className={item} checked={names} onCheckedChange={(on) => hand.set({ names: on })}>
          {tick(names)}
          {t('view.names')}
        </DropdownMenu.CheckboxItem>
        <DropdownMenu.Item className={item} onSelect={() => onOpen('list')}>
          {tick(false)}
          {t('view.list')}
        </DropdownMenu.Item>
        {canSpeak && hand.ground.frame.prompt && (
          <DropdownMenu.Item className={item} onSelect={() => speak(hand.ground.frame.prompt)}>
            {tick(false)}
            {t('view.readPrompt')}
          </DropdownMenu.Item>
        )}
        <DropdownMenu.Item className={item} onSelect={() => onOpen('help')}>
          {tick(false)}
          {t('view.help')}
        </DropdownMenu.Item>
        <DropdownMenu.Item className={item} onSelect={() => onOpen('tour')}>
          {tick(false)}
          {t('view.tour')}
        </DropdownMenu.Item>
        {authors.length > 1 && (
          <>
            <DropdownMenu.Separator className="my-1 border-t border-line" />
            <DropdownMenu.Label className="px-3 py-1 text-[13px] text-slate">{t('view.only')}</DropdownMenu.Label>
            <DropdownMenu.RadioGroup value={only ?? ''} onValueChange={(who) => hand.set({ only: who || null })}>
              <DropdownMenu.RadioItem value="" className={item}>
                {tick(!only)}
                {t('view.everybody')}
              </DropdownMenu.RadioItem>
              {authors.map((who) => (
                <DropdownMenu.RadioItem key={who} value={who} className={item}>
                  {tick(only === who)}
                  <span className="truncate">{hand.nameOf(who)}</span>
                </DropdownMenu.RadioItem>
              ))}
            </DropdownMenu.RadioGroup>
          </>
        )}
      </DropdownMenu.Content>
    </DropdownMenu.Root>
  )
}

import type { TFunction } from 'i18next'
import type { Command, Deed } from '../wire/types.gen'
import { whenAt } from '../words/words'

/** How frames and people are called where events are told. */
export type Names = { frame: (id: string) => string; poll: (id: string) => string; person: (id: string) => string }

/** What a teacher told the lesson, in words. */
export function commandInWords(t: TFunction, c: Command, names: Names): string {
  switch (c.kind) {
    case 'go':
      return t('line.go', { frame: names.frame(c.go.frame) })
    case 'pace':
      return t(c.pace.pace === 'own' ? 'line.own' : 'line.led')
    case 'poll':
      return t(`line.poll_${c.poll.phase}`, { poll: names.poll(c.poll.poll) })
    case 'ask':
      return t('line.ask', { poll: names.poll(c.ask.poll) })
    case 'set':
      return t(`line.set_${c.set.step}`, { frame: names.frame(c.set.frame) })
    case 'talk':
      return c.talk.poll ? t('line.talk', { poll: names.poll(c.talk.poll) }) : t('line.talkOver')
    case 'lift':
      return t(c.lift.down ? 'line.laid' : 'line.lifted')
    case 'groups':
      return t('line.groups')
    case 'assign':
      return t('line.assign', { name: names.person(c.assign.student), n: c.assign.group })
    case 'timer':
      return c.timer.seconds
        ? t('line.timer', { count: Math.max(1, Math.round(c.timer.seconds / 60)) })
        : t(c.timer.more ? 'line.timerMore' : 'line.timerStop')
    case 'lock':
      return where(t, c.lock.on ? 'line.lock' : 'line.unlock', c.lock, names)
    case 'hold':
      if (c.hold.words) return t(c.hold.on ? 'line.holdWords' : 'line.holdWordsOff')
      return where(t, c.hold.on ? 'line.hold' : 'line.holdOff', c.hold, names)
    case 'names':
      return t(c.names.off ? 'line.namesOff' : 'line.namesOn')
    case 'board':
      return c.board.student ? t('line.board', { name: names.person(c.board.student) }) : t('line.boardOff')
    case 'pause':
      return t(c.pause.on ? 'line.pause' : 'line.goOn')
    case 'walk':
      return t(c.walk.stops.length === 0 ? 'line.walkOff' : c.walk.own ? 'line.walkOwn' : 'line.walk')
    case 'door':
      return t(c.door.shut ? 'line.doorShut' : c.door.closed ? 'line.doorAsks' : 'line.doorOpen')
    case 'seat':
      return t(c.seat.remove ? 'line.out' : 'line.in', { name: names.person(c.seat.student) })
    case 'home':
      if (c.home.until === 0) return t('line.homeOff')
      return c.home.student
        ? t('line.homeFor', { name: names.person(c.home.student), when: whenAt(c.home.until) })
        : t('line.home', { when: whenAt(c.home.until) })
    case 'end':
      return t('line.end')
    case 'bands':
    case 'use':
    case 'lay':
    case 'reword':
    case 'front':
    case 'admit':
      return t('line.other')
  }
}

function where(t: TFunction, key: string, at: { frame?: string; student?: string }, names: Names): string {
  const whom = at.student
    ? names.person(at.student)
    : at.frame
      ? t('line.onFrame', { frame: names.frame(at.frame) })
      : t('line.everywhere')
  return `${t(key)}: ${whom}`
}

/** What a teacher did to others' work, in words. */
export function deedInWords(t: TFunction, deed: Deed, names: Names, list: Intl.ListFormat): string {
  const what = (['hidden', 'held', 'removed', 'shown', 'changed'] as const)
    .filter((k) => deed[k])
    .map((k) => t(`line.deed_${k}`, { count: deed[k] }))
  const whose = deed.authors.slice(0, 4).map(names.person)
  if (deed.authors.length > 4) whose.push(t('line.more', { count: deed.authors.length - 4 }))
  return t('line.deed', { what: list.format(what), whose: list.format(whose), frame: names.frame(deed.frame) })
}

import type { Shown } from '../wire/sheets'
import { isRemoved } from '../wire/standing'

/** Counts the answers on all sheets of a frame: poll id to choice id to number. */
export function answerCounts(sheets: Shown[], frame: string) {
  return (poll: string): { [choice: string]: number } => {
    const counts: { [choice: string]: number } = {}
    for (const sheet of sheets) {
      if (sheet.frame !== frame) continue
      for (const mark of sheet.marks) {
        if (mark.kind === 'answer' && mark.answer.poll === poll && !isRemoved(mark)) {
          counts[mark.answer.choice] = (counts[mark.answer.choice] ?? 0) + 1
        }
      }
    }
    return counts
  }
}

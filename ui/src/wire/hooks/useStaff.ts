import { StaffLesson } from '../staff'
import { useLesson, useLessonFrom } from './useLesson'

/** Connects the teacher to a session for as long as the screen is there. Give the screen the session as its key. */
export function useStaffConnection(session: string): StaffLesson {
  return useLessonFrom(() => new StaffLesson(session, `${session} staff`)) as StaffLesson
}

/** The running lesson of this screen, with the teacher's commands. */
export function useStaffLesson(): StaffLesson {
  const lesson = useLesson()
  if (!(lesson instanceof StaffLesson)) throw new Error('no lesson of a teacher around this part')
  return lesson
}

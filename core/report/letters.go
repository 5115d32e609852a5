package report

import (
	"io"
	"strings"
	"time"

	"alpenglow/core/assess"
	"alpenglow/core/lesson"
	"alpenglow/core/paint"
	"alpenglow/core/poll"
	"alpenglow/core/settings"
)

// Letters writes what goes back to students of a lesson as pages, to each a letter of their own: their work with what
// the teacher drew on it, what was right and why, levels and words. Times are shown as the clock of a place shows
// them.
func Letters(to io.Writer, all []assess.Back, l settings.Language, at *time.Location, pictures paint.Pictures) error {
	file := paint.NewPDF(to, pictures)
	title := ""
	for _, back := range all {
		s := &sheets{words: speak(l)}
		s.letter(back, at)
		s.add(file, back.Name)
		title = back.Title
	}
	return file.Close(title)
}

func (s *sheets) letter(b assess.Back, at *time.Location) {
	s.page()
	s.put(b.Name, huge, "night")
	s.put(b.Title+" · "+time.UnixMilli(b.At).In(at).Format("2006-01-02"), plain, "slate")
	s.y += 6
	if b.Whole != nil {
		s.told(*b.Whole, s.say("aboutWhole"))
	}
	if len(b.Frames) == 0 && b.Whole == nil {
		s.put(s.say("nothingYours"), plain, "night")
	}
	for _, f := range b.Frames {
		s.need(80)
		s.y += 10
		s.put(s.say("frameN", "n", f.N)+" "+f.Frame.Title, large, "night")
		if f.Judged != nil {
			s.told(*f.Judged, s.say("aboutFrame", "n", f.N))
		}
		if marks := shown(f); len(marks) > 0 {
			s.frame(paint.Frame(f.Frame, marks, nil))
		}
		s.marked(f)
		for _, a := range f.Answers {
			s.answer(a, f.Marked[a.Mark])
		}
	}
}

// shown are the marks of a frame that goes back: the student's, with their answers, and on top what the teacher drew.
func shown(f assess.BackFrame) []lesson.Element {
	marks := append([]lesson.Element{}, f.Marks...)
	for _, a := range f.Answers {
		marks = append(marks, lesson.Element{ID: a.Mark, Body: lesson.Body{Kind: lesson.KindAnswer,
			Answer: &lesson.Answer{Poll: a.Poll, Round: a.Round, Value: a.Value}}})
	}
	if f.Judged != nil {
		top := int64(0)
		for _, m := range marks {
			top = max(top, m.Z)
		}
		for i, line := range f.Judged.Ink {
			line.Z = top + 1 + int64(i)
			marks = append(marks, line)
		}
	}
	return marks
}

// told is what the teacher says of something: a level, one by each criterion, words.
func (s *sheets) told(w assess.Told, about string) {
	s.put(about, bold, "slate")
	if w.Level != nil {
		s.put(w.Level.Name(), large, "dusk")
	}
	for _, l := range w.Grid {
		line := l.By.Name + ": " + l.Name()
		if words := l.Describes(); words != "" {
			line += " – " + words
		}
		s.put("– "+line, plain, "night")
	}
	if w.Comment != "" {
		s.put(w.Comment, plain, "night")
	}
	if w.Voice != "" {
		s.put(s.say("spoken"), small, "slate")
	}
	s.y += 4
}

// marked is what is said of single notes and other marks.
func (s *sheets) marked(f assess.BackFrame) {
	for _, m := range f.Marks {
		w, ok := f.Marked[m.ID]
		if !ok {
			continue
		}
		about := s.say("aboutThis")
		if words := strings.Join(strings.Fields(m.Words()), " "); words != "" {
			about = s.say("aboutNote", "text", words)
		}
		s.told(w, about)
	}
}

func (s *sheets) answer(a assess.BackAnswer, said assess.Told) {
	s.need(40)
	s.put(a.Asked, bold, "night")
	line := s.say("yours") + " " + a.Text
	if a.Text == "" {
		line = s.say("yours") + " " + s.say("drawn")
	}
	if a.Verdict != "" {
		line += " · " + s.say("is_"+string(a.Verdict))
	}
	if a.Late {
		line += " " + s.say("late")
	}
	s.put(line, plain, "night")
	if a.Right != "" && a.Verdict != poll.Right {
		s.put(s.say("rightIs")+" "+a.Right, plain, "fern")
	}
	if a.Why != "" {
		s.put(a.Why, plain, "night")
	}
	if said.Level != nil || said.Comment != "" {
		s.told(said, s.say("aboutThis"))
	}
	s.y += 4
}

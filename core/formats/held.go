package formats

import (
	"bytes"
	"encoding/json"
	"slices"
	"strconv"
	"strings"

	"alpenglow/core/assess"
	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/record"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/settings"
	"alpenglow/core/sheet"
)

// Limits of the lessons in a board file.
const (
	MaxHeld   = 60
	maxGroups = 200
	oneMinute = 60_000 // milliseconds
)

// Held is a lesson that was held with a board, as a file keeps it: how it stood at its end. Times are in
// milliseconds since 1970.
type Held struct {
	Class    string            `json:"class,omitempty"`
	Language settings.Language `json:"language"`
	Began    int64             `json:"began"`
	Ended    int64             `json:"ended"`
	// Board is the lesson's own, as the class had it.
	Board    lesson.Board          `json:"board"`
	Lifted   []string              `json:"lifted,omitempty"`
	Polls    map[string]poll.State `json:"polls"`
	Groups   [][]string            `json:"groups,omitempty"` // students by their ids
	Students []record.Student      `json:"students"`
	Sheets   []HeldSheet           `json:"sheets"`
	// Judged is what the teacher of the lesson noted; there is no one else's in a file.
	Judged []assess.Judged `json:"judged"`
}

// HeldSheet is what lay on a copy of a frame at the end.
type HeldSheet struct {
	Frame string           `json:"frame"`
	Owner string           `json:"owner"`
	Marks []lesson.Element `json:"marks"`
}

// Pictures lists the pictures and recordings that students and teachers brought into the lesson, without those
// that were prepared.
func (h Held) Pictures() []string {
	var names []string
	add := func(name string) {
		if name != "" && !slices.Contains(names, name) {
			names = append(names, name)
		}
	}
	for _, s := range h.Sheets {
		for _, m := range s.Marks {
			if m.Picture != nil {
				add(m.Picture.Picture)
			}
		}
	}
	for _, j := range h.Judged {
		add(j.Voice)
	}
	return names
}

// Anew gives the lesson with other ids in the place of those of its students and pictures, which here stand for
// one lesson alone.
func (h Held) Anew(ids map[string]string) (Held, error) {
	text, err := json.Marshal(h)
	if err != nil {
		return h, err
	}
	var pairs []string
	for from, to := range ids {
		pairs = append(pairs, strconv.Quote(from), strconv.Quote(to))
	}
	var next Held
	err = json.Unmarshal([]byte(strings.NewReplacer(pairs...).Replace(string(text))), &next)
	return next, err
}

// Record is what is kept of the lesson.
func (h Held) Record() record.Record {
	var marks []record.Mark
	for _, s := range h.Sheets {
		for _, m := range s.Marks {
			marks = append(marks, record.Mark{Frame: s.Frame, Element: m})
		}
	}
	return record.Build(h.Board, h.Students, marks)
}

// readHeld reads a lesson of a board file.
func readHeld(text []byte) (Held, error) {
	var h Held
	reader := json.NewDecoder(bytes.NewReader(text))
	reader.DisallowUnknownFields()
	if err := reader.Decode(&h); err != nil {
		return h, refusal.New(refusal.FileUnreadable)
	}
	return h, h.Check()
}

// Check reports what is wrong with a lesson of a file: nothing may be in it that no lesson could have come to.
func (h Held) Check() error {
	if err := h.Board.Check(); err != nil {
		return err
	}
	if !slices.Contains(settings.Languages, h.Language) || h.Began <= 0 || h.Ended < h.Began {
		return wrong("its language or times")
	}
	if h.Class != "" {
		if name, err := lesson.ReadCalled(h.Class, lesson.MaxTitle); err != nil || name != h.Class {
			return wrong("the name of the class")
		}
	}
	who, err := h.who()
	if err != nil {
		return err
	}
	if err := h.checkState(who); err != nil {
		return err
	}
	seen := map[string]bool{}
	for _, s := range h.Sheets {
		key := s.Frame + " " + s.Owner
		if seen[key] {
			return wrong("a sheet that is there twice")
		}
		seen[key] = true
		if err := h.checkSheet(s, who); err != nil {
			return err
		}
	}
	return h.checkJudged()
}

func wrong(what string) error { return refusal.About(refusal.FileUnreadable, "%s", what) }

// who are the students and the staff, by their ids.
func (h Held) who() (map[string]bool, error) {
	if len(h.Students) > session.MaxParticipants {
		return nil, refusal.New(refusal.FileHuge)
	}
	who := map[string]bool{lesson.Staff: true}
	for _, s := range h.Students {
		if name, err := lesson.ReadCalled(s.Name, lesson.MaxTitle); err != nil || name != s.Name || !id.IsUUID(s.ID) ||
			who[s.ID] {
			return nil, wrong("a student")
		}
		who[s.ID] = true
	}
	return who, nil
}

func (h Held) checkState(who map[string]bool) error {
	if len(h.Groups) > maxGroups {
		return wrong("groups")
	}
	for _, g := range h.Groups {
		for _, s := range g {
			if !who[s] || s == lesson.Staff {
				return wrong("a student in a group")
			}
		}
	}
	for _, c := range h.Lifted {
		if !id.IsPlain(c) {
			return wrong("a cover")
		}
	}
	for at, p := range h.Polls {
		if !id.IsPlain(at) || p.Round < 1 || p.Round > poll.MaxRounds ||
			p.Phase != poll.Closed && p.Phase != poll.Revealed {
			return wrong("how a question stands")
		}
	}
	return nil
}

func (h Held) checkSheet(s HeldSheet, who map[string]bool) error {
	f, _, err := h.Board.Frame(s.Frame)
	if err != nil {
		return wrong("a sheet of no frame")
	}
	group := sheet.GroupNumber(s.Owner)
	if s.Owner != sheet.ClassOwner && (group < 1 || group > maxGroups) && (!who[s.Owner] || s.Owner == lesson.Staff) {
		return wrong("whose a sheet is")
	}
	if len(s.Marks) > 2*sheet.MaxMarks {
		return refusal.New(refusal.FileHuge)
	}
	seen := map[string]bool{}
	for _, m := range s.Marks {
		if seen[m.ID] {
			return wrong("a mark that is there twice")
		}
		seen[m.ID] = true
		if err := h.checkMark(m, f, who); err != nil {
			return err
		}
	}
	return nil
}

func (h Held) checkMark(m lesson.Element, on lesson.Frame, who map[string]bool) error {
	known := func(by string) bool { return by == "" || who[by] }
	if !known(m.Author) || !known(m.By) || !m.OnFrame() || m.At < 0 || m.At > h.Ended+oneMinute {
		return wrong("who made a mark, or when")
	}
	if slices.ContainsFunc(m.Agreed, func(by string) bool { return !who[by] }) {
		return wrong("who agrees with a note")
	}
	if m.Standing != nil && (!known(m.Standing.By) || m.Standing.Was != nil ||
		!slices.Contains([]lesson.Stand{lesson.Held, lesson.Hidden}, m.Standing.Is)) {
		return wrong("how a mark stands")
	}
	if err := m.Check(); err != nil {
		return err
	}
	switch {
	case m.Handed != nil:
		if m.Handed.Round < 1 || m.ID != lesson.HandedID(on.ID, m.Handed.Round) {
			return wrong("what was handed in")
		}
	case m.Answer != nil:
		return h.checkAnswer(m)
	case !id.IsPlain(m.ID):
		return refusal.New(refusal.BadID)
	case m.Placed != nil:
		if _, ok := on.Piece(m.Placed.Piece); !ok {
			return wrong("a piece that is not there")
		}
	case !m.InClass():
		return wrong("a mark that nobody makes in class")
	}
	return nil
}

// checkAnswer holds an answer against what was asked, as when it was given.
func (h Held) checkAnswer(m lesson.Element) error {
	a := m.Answer
	if a.Round < 1 || a.Round > poll.MaxRounds || m.ID != poll.AnswerID(a.Poll, a.Round) ||
		!slices.Contains(poll.Surenesses, a.Sure) || len(a.Read) > lesson.MaxNotes {
		return wrong("an answer")
	}
	for _, f := range h.Board.Frames {
		q, err := f.Poll(a.Poll)
		if err != nil {
			continue
		}
		asked := q.Poll.In(a.Round)
		for _, v := range append([]poll.Value{a.Value}, a.Before...) {
			if err := asked.Takes(v); err != nil {
				return err
			}
		}
		return nil
	}
	return wrong("an answer to no question")
}

func (h Held) checkJudged() error {
	kept := h.Record()
	seen := map[assess.Piece]bool{}
	for _, j := range h.Judged {
		if seen[j.Piece] || j.By != "" || j.At < 0 {
			return wrong("what was judged")
		}
		seen[j.Piece] = true
		if err := j.Check(kept); err != nil {
			return err
		}
	}
	return nil
}

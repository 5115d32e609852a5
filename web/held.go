package web

import (
	"cmp"
	"context"
	"errors"
	random "math/rand/v2"
	"slices"
	"time"

	"alpenglow/core/assess"
	"alpenglow/core/formats"
	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/record"
	"alpenglow/core/refusal"
	"alpenglow/core/roster"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/store"
)

var errChanged = errors.New("a lesson was changed while it was put in")

// heldWith gives the lessons that a teacher held with a board, as a file keeps them.
func (s *server) heldWith(ctx context.Context, me, board string) ([]formats.Held, error) {
	sessions, err := s.Store.HeldWith(ctx, me, board, formats.MaxHeld+1)
	if err == nil && len(sessions) > formats.MaxHeld {
		err = refusal.About(refusal.FileHuge, "more than %d lessons", formats.MaxHeld)
	}
	var held []formats.Held
	for _, n := range sessions {
		if err != nil {
			break
		}
		var h formats.Held
		h, err = s.heldOf(ctx, n)
		held = append(held, h)
	}
	return held, err
}

// heldOf is a lesson as a file keeps it. Whoever has been erased is nowhere in it.
func (s *server) heldOf(ctx context.Context, n store.Session) (formats.Held, error) {
	state := n.State.V
	h := formats.Held{
		Class:    n.ClassName,
		Language: n.Language,
		Began:    n.StartedAt.UnixMilli(),
		Ended:    n.EndedAt.UnixMilli(),
		Lifted:   state.Lifted,
		Polls:    map[string]poll.State{},
		Students: []record.Student{},
		Sheets:   []formats.HeldSheet{},
		Judged:   []assess.Judged{},
	}
	for id, p := range state.Polls {
		if p.Phase == poll.Closed || p.Phase == poll.Revealed {
			h.Polls[id] = p
		}
	}
	people, err := s.Store.Participants(ctx, n.ID)
	if err == nil {
		h.Board, err = s.Store.Lesson(ctx, n.ID)
	}
	if err != nil {
		return h, err
	}
	who := map[string]bool{lesson.Staff: true}
	for _, p := range people {
		who[p.ID] = true
		h.Students = append(h.Students, record.Student{ID: p.ID, Name: n.Calls(p)})
	}
	for _, g := range state.Groups {
		h.Groups = append(h.Groups, slices.DeleteFunc(slices.Clone(g), func(id string) bool { return !who[id] }))
	}
	keys, err := s.Store.SheetKeys(ctx, n.ID, "")
	if err != nil {
		return h, err
	}
	loaded, err := s.Store.LoadSheets(ctx, keys)
	if err != nil {
		return h, err
	}
	for _, key := range keys {
		on := formats.HeldSheet{Frame: key.Frame, Owner: key.Owner, Marks: []lesson.Element{}}
		for _, m := range loaded[key.ID].Marks() {
			if m.OnFrame() && (m.Author == "" || who[m.Author]) {
				on.Marks = append(on.Marks, asHeld(m, who, h.Ended))
			}
		}
		if _, _, gone := h.Board.Frame(key.Frame); gone == nil && len(on.Marks) > 0 {
			h.Sheets = append(h.Sheets, on)
		}
	}
	all, err := s.Store.Judgements(ctx, n.ID)
	kept := h.Record()
	for _, j := range all {
		if j.By == n.TeacherID && j.In(kept) == nil {
			j.By = ""
			h.Judged = append(h.Judged, j)
		}
	}
	return h, err
}

// asHeld gives a mark as it stood at the end, without what it was before.
func asHeld(m lesson.Element, who map[string]bool, ended int64) lesson.Element {
	m.At = min(m.At, ended)
	m.Agreed = slices.DeleteFunc(slices.Clone(m.Agreed), func(by string) bool { return !who[by] })
	if m.By != "" && !who[m.By] {
		m.By = ""
	}
	if m.Standing != nil {
		m.Standing = &lesson.Standing{Is: m.Standing.Is, By: lesson.Staff, At: m.Standing.At}
	}
	return m
}

// takeHeld makes a lesson of a file one of the teacher's, held with a board of theirs. Until it is whole it is a
// rehearsal that nobody knows of, and is forgotten as those are.
func (s *server) takeHeld(ctx context.Context, me, board string, h formats.Held, file formats.File,
	library map[string]string) (id string, err error) {
	n := store.Session{TeacherID: me, ClassName: h.Class, Language: h.Language, Practice: true}
	if n.State.V, err = session.Start(h.Board, session.Led); err != nil {
		return "", err
	}
	prepared := formats.Rename(h.Board, library)
	for err = store.ErrTaken; errors.Is(err, store.ErrTaken); {
		n.Code = roster.Code(random.IntN)
		err = s.Store.StartSession(ctx, &n, board, prepared)
	}
	if err != nil {
		return "", err
	}
	defer func() {
		if err != nil {
			err = errors.Join(err, s.Store.ForgetPractice(context.WithoutCancel(ctx), n.ID))
		}
	}()
	names := make([]string, len(h.Students))
	for i, student := range h.Students {
		names[i] = student.Name
	}
	seats, err := s.Store.SeatAll(ctx, n.ID, names)
	if err != nil {
		return "", err
	}
	ids := map[string]string{}
	for i, student := range h.Students {
		ids[student.ID] = seats[i]
	}
	if err := s.takePictures(ctx, n.ID, h, file, ids); err != nil {
		return "", err
	}
	if h, err = h.Anew(ids); err != nil {
		return "", err
	}
	if err := s.takeSheets(ctx, n, h); err != nil {
		return "", err
	}
	if err := s.Store.JudgeAll(ctx, n.ID, me, h.Judged); err != nil {
		return "", err
	}
	next := n.State.V
	next.Rev, next.Ended, next.Polls, next.Lifted, next.Groups = next.Rev+1, true, h.Polls, h.Lifted, h.Groups
	for _, f := range h.Board.Frames {
		if !slices.Contains(next.Reached, f.ID) {
			next.Reached = append(next.Reached, f.ID)
		}
	}
	if stored, err := s.Store.SetState(ctx, n.ID, next); err != nil || !stored {
		return "", errors.Join(err, errChanged)
	}
	return n.ID, s.Store.WasHeld(ctx, n.ID, time.UnixMilli(h.Began), time.UnixMilli(h.Ended))
}

// takePictures keeps what was brought into a lesson with it, and notes under which ids; what is not in the file is
// nowhere.
func (s *server) takePictures(ctx context.Context, session string, h formats.Held, file formats.File,
	ids map[string]string) error {
	by := map[string]string{}
	for _, on := range h.Sheets {
		for _, m := range on.Marks {
			if m.Picture != nil {
				by[m.Picture.Picture] = m.Author
			}
		}
	}
	for _, name := range h.Pictures() {
		p, ok := file.Pictures[name]
		if ids[name] = store.NewID(); !ok {
			continue
		}
		author := lesson.Staff
		if to, ok := ids[by[name]]; ok {
			author = to
		}
		id, full, err := s.Store.AddPicture(ctx, session, author, p, picturesPerSession)
		if full {
			err = refusal.New(refusal.FileHuge)
		}
		if err != nil {
			return err
		}
		ids[name] = id
	}
	return nil
}

// sheetsAtOnce is how many sheets are stored in one statement.
const sheetsAtOnce = 60

// takeSheets puts on the sheets what lay there, in the order in which it was made: that is how the lesson grew.
func (s *server) takeSheets(ctx context.Context, n store.Session, h formats.Held) error {
	byFrame := map[string][]formats.HeldSheet{}
	for _, on := range h.Sheets {
		byFrame[on.Frame] = append(byFrame[on.Frame], on)
	}
	for frame, all := range byFrame {
		for some := range slices.Chunk(all, sheetsAtOnce) {
			if err := s.takeSome(ctx, n, frame, some); err != nil {
				return err
			}
		}
	}
	return nil
}

// takeSome puts on some sheets of one frame what lay there.
func (s *server) takeSome(ctx context.Context, n store.Session, frame string, some []formats.HeldSheet) error {
	owners := make([]string, len(some))
	for i, on := range some {
		owners[i] = on.Owner
	}
	keys, err := s.Store.EnsureSheets(ctx, n.ID, frame, owners)
	if err != nil {
		return err
	}
	ids := map[string]string{}
	for _, key := range keys {
		ids[key.Owner] = key.ID
	}
	batches := make([]store.Batch, len(some))
	for i, on := range some {
		b := store.Batch{Sheet: ids[on.Owner], Session: n.ID, Terms: n.State.V.Terms, Amounts: map[string]int{}}
		slices.SortStableFunc(on.Marks, func(a, b lesson.Element) int { return cmp.Compare(a.At, b.At) })
		for i, m := range on.Marks {
			seq := int64(i + 1)
			b.Changes = append(b.Changes, sheet.Change{Seq: seq, Op: store.NewID(), By: m.Author, At: m.At,
				Put: []lesson.Element{m}})
			b.Marks = append(b.Marks, sheet.Touched{Element: m, Seq: seq})
			b.Amounts[m.Author]++
		}
		batches[i] = b
	}
	stored, err := s.Store.Commit(ctx, batches)
	if err == nil && len(stored) != len(batches) {
		err = errChanged
	}
	return err
}

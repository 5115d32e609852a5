package live

import (
	"context"
	"fmt"
	"sync"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/prepare"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/store"
)

// rework makes one change of the marks that were prepared on the first frame.
func (h house) rework(hub *Hub, s sheet.Step) error {
	change := prepare.Step{Kind: prepare.KindMarks, Marks: &prepare.MarksStep{Frame: "one", Step: s}}
	_, err := hub.Rework(ctx, h.session, "ines", func(d *store.Draft) error { return applyStep(ctx, d, change) })
	return err
}

// A teacher changes the board on one server while students work on another: of two
// things that exclude each other one is done and the other refused, every time.
func TestReworkAtOnce(t *testing.T) {
	t.Parallel()
	h := newHouse(t, 1)
	one, other := h.hub(t), h.hub(t)
	defer one.Close(context.Background())
	defer other.Close(context.Background())
	noor := sheet.Actor{ID: h.students[0].ID}
	own, err := other.store.EnsureSheet(ctx, h.session, "one", noor.ID)
	if err != nil {
		t.Fatal(err)
	}
	both := func(teacher, student func() error) (error, error) {
		var all sync.WaitGroup
		var first, second error
		all.Go(func() { first = teacher() })
		all.Go(func() { second = student() })
		all.Wait()
		return first, second
	}
	for round := range 40 {
		// A mark with the id that a student's new note has.
		add := h.note("mine")
		first, second := both(
			func() error {
				return h.rework(
					one,
					sheet.Step{Kind: sheet.KindAdd, Add: &sheet.Add{Mark: add.Add.Mark, X: 20, Y: 500, W: 200,
						H: 100, Body: words("a task")}},
				)
			},
			func() error { _, err := h.do(t, other, noor, add); return err })
		if (first == nil) == (second == nil) {
			t.Fatalf("round %d: the teacher's mark: %v, the student's: %v", round, first, second)
		}
		// A poll that goes while it is answered.
		asked := store.NewID()
		if err := h.rework(one, sheet.Step{Kind: sheet.KindAdd, Add: &sheet.Add{Mark: asked, X: 600, Y: 100, W: 400,
			H: 300,
			Body: lesson.Body{Kind: lesson.KindPoll, Poll: &poll.Question{Text: "How long?",
				Body: poll.Offer(poll.Option{ID: "a"}, poll.Option{ID: "b"})}}}}); err != nil {
			t.Fatal(err)
		}
		value := poll.Choose("a")
		answer := sheet.Op{ID: store.NewID(), Sheet: own.ID, Step: sheet.Step{Kind: sheet.KindAnswer,
			Answer: &sheet.SetAnswer{Poll: asked, Round: 1, Value: &value}}}
		first, second = both(
			func() error {
				return h.rework(one, sheet.Step{Kind: sheet.KindRemove, Remove: &sheet.Remove{Mark: asked}})
			},
			func() error {
				_, err := h.do(t, other, noor, answer)
				if r := refusal.Of(err); r != nil &&
					r.Code == refusal.NoSuchPoll { // this server has not heard of it yet
					if err := other.refresh(ctx, sessionOf(t, other, h.session)); err != nil {
						return err
					}
					answer.ID = store.NewID()
					_, err = h.do(t, other, noor, answer)
				}
				return err
			})
		if (first == nil) == (second == nil) {
			t.Fatalf("round %d: the poll was removed: %v, and answered: %v", round, first, second)
		}
		if first != nil {
			if r := refusal.Of(first); r == nil || r.Code != refusal.PollAnswered {
				t.Fatalf("round %d: %v", round, first)
			}
		}
	}
}

func sessionOf(t *testing.T, hub *Hub, id string) *running {
	t.Helper()
	r, err := hub.session(ctx, id)
	if err != nil {
		t.Fatal(err)
	}
	return r
}

// Two teachers change the same prompt, and columns are renamed and removed while
// students write into them: each change is done whole, every device ends with the
// same board, and no note is lost.
func TestReworkedByTwo(t *testing.T) {
	t.Parallel()
	f := newBattle(t)
	frame := f.board.Frames[0].ID
	ines, colleague := f.connect("staff", RoleStaff), f.connect("colleague", RoleStaff)
	kenji := f.connect("Kenji", RoleStudent)
	class := ines.open(frame)[0].Sheet
	kenji.call(MethodHello, struct{}{})
	kenji.call(MethodMove, Move{Frame: frame})
	column := func(id string) lesson.Column { return lesson.Column{ID: id, Title: "column " + id} }
	layouts := []lesson.Layout{
		{Columns: []lesson.Column{column("a"), column("b")}},
		{Columns: []lesson.Column{column("b")}},
		{Columns: []lesson.Column{column("b"), column("c"), column("a")}},
		{},
	}
	var all sync.WaitGroup
	for k, w := range []*wire{ines, colleague} {
		all.Go(func() {
			for i := range 20 {
				w.call(MethodCommand, session.Command{Kind: session.KindReword,
					Reword: &session.Reword{
						Frame:  frame,
						Title:  "shared",
						Prompt: fmt.Sprintf("prompt %d of %d", i, k),
					}})
				w.call(MethodCommand, session.Command{Kind: session.KindLay,
					Lay: &session.Lay{Frame: frame, Layout: layouts[(i+k)%len(layouts)]}})
			}
		})
	}
	written := 0
	all.Go(func() {
		for i := range 40 {
			op := adding(class, fmt.Sprint("note ", i))
			op.Add.Note.Column = []string{"a", "b", "c"}[i%3]
			if reply := kenji.ops(op); reply.Results[0].Problem == nil {
				written++
			} else {
				t.Errorf("note %d: %s", i, reply.Results[0].Problem.Code)
			}
		}
	})
	all.Wait()
	r := sessionOf(t, f.hub, f.id)
	state, board := r.snapshot()
	stored, err := f.hub.store.Lesson(ctx, f.id)
	if err != nil {
		t.Fatal(err)
	}
	now, _, _ := stored.Frame(frame)
	if here, _, _ := board.Frame(frame); here.Prompt != now.Prompt || !here.Layout.Equal(now.Layout) {
		t.Errorf("stored %q %+v, in memory %q %+v", now.Prompt, now.Layout, here.Prompt, here.Layout)
	}
	if state.Edition != 80 {
		t.Errorf("%d editions after 80 changes", state.Edition)
	}
	if len(kenji.open(frame)) == 0 || written != 40 {
		t.Errorf("%d notes were taken", written)
	}
}

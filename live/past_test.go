package live

import (
	"fmt"
	"math/rand/v2"
	"reflect"
	"sync"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/sheet"
	"alpenglow/store"
)

// A history of 50,000 changes over real PostgreSQL: how long until it is open, and until
// any moment of it is there.
func BenchmarkPast(b *testing.B) {
	const changes, marks = 50_000, 400
	f := newBattle(b)
	staff := f.connect("staff", RoleStaff)
	class := staff.open(f.board.Frames[0].ID)[0].Sheet
	key, err := f.hub.store.SheetKey(ctx, class)
	if err != nil {
		b.Fatal(err)
	}
	random := rand.New(rand.NewPCG(3, 4))
	var ids []string
	r, err := f.hub.session(ctx, f.id)
	if err != nil {
		b.Fatal(err)
	}
	state, _ := r.snapshot()
	for seq := key.Seq; seq < changes; {
		batch := store.Batch{Sheet: key.ID, Session: f.id, Expected: seq, Terms: state.Terms}
		last := map[string]sheet.Touched{}
		for range min(500, changes-int(seq)) {
			seq++
			id := store.NewID()
			if len(ids) < marks {
				ids = append(ids, id)
			} else {
				id = ids[random.IntN(marks)]
			}
			m := lesson.Element{
				ID:     id,
				Author: f.ids[seq%3],
				X:      float64(random.IntN(1200)),
				Y:      float64(random.IntN(800)),
				W:      200,
				H:      100,
				At:     seq,
				Body:   words(fmt.Sprint("note ", seq)),
			}
			batch.Changes = append(batch.Changes,
				sheet.Change{Seq: seq, Op: store.NewID(), By: m.Author, At: seq, Put: []lesson.Element{m}})
			last[id] = sheet.Touched{Element: m, Seq: seq}
		}
		for _, m := range last {
			batch.Marks = append(batch.Marks, m)
		}
		if stored, err := f.hub.store.Commit(ctx, []store.Batch{batch}); err != nil || !stored[key.ID] {
			b.Fatal(stored, err)
		}
	}
	at, err := f.hub.hold(ctx, class)
	if err == nil {
		err = f.hub.catchUp(ctx, at)
	}
	if err != nil || at.seq() != changes {
		b.Fatal(err)
	}
	b.Run("open", func(b *testing.B) {
		for b.Loop() {
			f.hub.pasts = pasts{}
			t, err := f.hub.Timeline(ctx, f.id, class)
			if err != nil || len(t.At) != changes {
				b.Fatal(len(t.At), err)
			}
		}
	})
	b.Run("moment", func(b *testing.B) {
		for b.Loop() {
			m, err := f.hub.Moment(ctx, f.id, class, random.IntN(changes))
			if err != nil || len(m.Marks) > marks {
				b.Fatal(len(m.Marks), err)
			}
		}
	})
}

// The teacher sets the frame back, again and again, and takes it back, while thirty write:
// everything is answered, and what is there is what its history gives.
func TestSetBackWhileAllWrite(t *testing.T) {
	t.Parallel()
	var names []string
	for i := range 27 {
		names = append(names, fmt.Sprint("Student ", i))
	}
	f := newBattle(t, names...)
	staff := f.connect("staff", RoleStaff)
	class := staff.open(f.board.Frames[0].ID)[0].Sheet
	var all sync.WaitGroup
	for _, name := range append([]string{"Noor", "Kenji", "Vera"}, names...) {
		student := f.connect(name, RoleStudent)
		student.call(MethodHello, struct{}{})
		all.Go(func() {
			for i := range 8 {
				for _, r := range student.ops(adding(class, fmt.Sprint(name, " writes ", i))).Results {
					if r.Problem != nil {
						t.Errorf("%s: %s", name, r.Problem.Code)
					}
				}
			}
		})
	}
	set := 0
	for i := range 12 {
		op := step(class, sheet.Step{Kind: sheet.KindSetBack, SetBack: &sheet.SetBack{To: int64(i * 5)}})
		r := staff.ops(op).Results[0]
		if r.Problem != nil { // the moment is not there yet, or nothing has come since
			continue
		}
		if set++; i%2 == 0 {
			undo := *r.Undo
			undo.ID, undo.Back = store.NewID(), true
			staff.ops(undo)
		}
	}
	all.Wait()
	if set == 0 {
		t.Error("nothing was ever set back")
	}
	at, err := f.hub.hold(ctx, class)
	if err != nil {
		t.Fatal(err)
	}
	f.hub.pasts = pasts{}
	m, err := f.hub.Moment(ctx, f.id, class, 1_000_000)
	if err != nil {
		t.Fatal(err)
	}
	is := []lesson.Element{}
	at.with(func(s *sheet.Sheet) {
		for _, e := range s.Marks() {
			if e.OnFrame() {
				is = append(is, e)
			}
		}
	})
	if !reflect.DeepEqual(is, m.Marks) || m.Seq != at.seq() {
		t.Errorf("%d marks at %d are there, %d at %d by its history", len(is), at.seq(), len(m.Marks), m.Seq)
	}
	if n := f.panics(); n > 0 {
		t.Errorf("%v panics", n)
	}
}

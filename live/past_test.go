package live

import (
	"fmt"
	"math/rand/v2"
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
			m := lesson.Element{ID: id, Author: f.ids[seq%3], X: float64(random.IntN(1200)), Y: float64(random.IntN(800)),
				W: 200, H: 100, At: seq, Body: words(fmt.Sprint("note ", seq))}
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

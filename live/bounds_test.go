package live

import (
	"encoding/json"
	"errors"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/store"
	"alpenglow/store/storetest"
)

// ended waits until a connection is closed from the other side, and gives the code.
func (w *wire) ended() int {
	for range 300 {
		w.mu.Lock()
		code := w.closed
		w.mu.Unlock()
		if code != 0 {
			return code
		}
		time.Sleep(10 * time.Millisecond)
	}
	return 0
}

// One person has so many connections; the newest stay. A sign-in that is over, a
// seat that was given up or taken away close theirs.
func TestConnectionsEnd(t *testing.T) {
	t.Parallel()
	f := newBattle(t)
	var tabs []*wire
	for range maxForPerson + 3 {
		tab := f.connect("Noor", RoleStudent)
		tab.call(MethodHello, struct{}{}) // the server has taken it in before it answers this
		tabs = append(tabs, tab)
	}
	for i, tab := range tabs[:3] {
		if code := tab.ended(); code != int(closeOver.Code) {
			t.Errorf("window %d of %d ended with %d", i, len(tabs), code)
		}
	}
	newest := tabs[len(tabs)-1]
	newest.call(MethodHello, struct{}{})
	staff, kenji := f.connect("staff", RoleStaff), f.connect("Kenji", RoleStudent)
	staff.call(MethodCommand, session.Command{Kind: session.KindSeat,
		Seat: &session.SetSeat{Student: f.ids[0], Remove: true}})
	if code := newest.ended(); code != int(closeJoin.Code) {
		t.Errorf("a seat that was taken away ended with %d", code)
	}
	again := f.dial("Noor", RoleStudent)
	again.conn.WriteJSON(map[string]any{"id": 1,
		"connect": map[string]any{"data": Connect{Session: f.id, As: RoleStudent}}})
	if again.ended() != int(closeJoin.Code) {
		t.Error("who was removed is let in again")
	}
	kenji.call(MethodHello, struct{}{})
	f.hub.CloseLogin("login")
	if code := staff.ended(); code != int(closeSignIn.Code) {
		t.Errorf("signed out, the connection ended with %d", code)
	}
}

// A bug costs one operation: it is refused and counted, and everybody goes on.
func TestPanicCostsOneOperation(t *testing.T) {
	t.Parallel()
	h := newHouse(t, 2)
	hub := h.hub(t)
	defer hub.Close(ctx)
	db := storetest.DB(t, h.url)
	// A stroke without its points, which no working server would store.
	if _, err := db.Exec(`INSERT INTO marks (sheet_id, id, mark) VALUES ($1, 'broken', '{"id":"broken","author":"x","kind":"stroke","z":1,"at":0,"x":5,"y":5,"w":9,"h":9}')`, h.sheet.ID); err != nil {
		t.Fatal(err)
	}
	me, other := sheet.Actor{Staff: true}, sheet.Actor{ID: h.students[1].ID}
	erase := sheet.Op{ID: store.NewID(), Sheet: h.sheet.ID,
		Step: sheet.Step{Kind: sheet.KindErase, Erase: &sheet.Erase{Path: []float64{5, 5, 20, 20}, Radius: 10}}}
	var all sync.WaitGroup
	for range 5 {
		all.Go(func() {
			op := erase
			op.ID = store.NewID()
			if _, err := h.do(t, hub, me, op); !errors.Is(err, refusal.New(refusal.Failed)) {
				t.Errorf("the operation with the bug: %v", err)
			}
		})
		all.Go(func() {
			if _, err := h.do(t, hub, other, h.note("goes on")); err != nil {
				t.Errorf("somebody else's: %v", err)
			}
		})
	}
	all.Wait()
	f := &battle{hub: hub}
	if n := f.panics(); n != 5 {
		t.Errorf("%v panics are counted", n)
	}
}

// What takes long is refused or charged; an ordinary lesson beside it goes on.
func TestHeavyOperationsAreCharged(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("takes long")
	}
	h := newHouse(t, 2)
	hub := h.hub(t)
	defer hub.Close(ctx)
	r, err := hub.session(ctx, h.session)
	if err != nil {
		t.Fatal(err)
	}
	own, err := hub.store.EnsureSheet(ctx, h.session, "one", h.students[0].ID)
	if err != nil {
		t.Fatal(err)
	}
	at, err := hub.hold(ctx, own.ID)
	if err != nil {
		t.Fatal(err)
	}
	// The most ink that a student may have on a sheet of their own, in one band.
	at.with(func(s *sheet.Sheet) {
		for k := range 50 {
			points := make([]float64, 0, 12_000)
			for i := range 4000 {
				points = append(points, float64(i%1500), float64(i%7), .5)
			}
			e := lesson.Element{ID: store.NewID(), Author: h.students[0].ID, X: 10, Y: 400, Z: int64(k),
				Body: lesson.Body{Kind: lesson.KindStroke,
					Stroke: &lesson.Stroke{Points: points, Ink: "night", Width: 4}}}
			e.Fit()
			s.Load(e, 0)
		}
	})
	zigzag := make([]float64, 0, 1000)
	for i := range 500 {
		zigzag = append(zigzag, float64(i%2*1500), 425+float64(i%9))
	}
	attacker := seat{session: r, actor: sheet.Actor{ID: h.students[0].ID}}
	var refused atomic.Int64
	stop := make(chan struct{})
	var attack sync.WaitGroup
	for range 4 {
		attack.Go(func() {
			for {
				select {
				case <-stop:
					return
				default:
				}
				ops := Ops{}
				for range 10 {
					text, _ := json.Marshal(sheet.Op{ID: store.NewID(), Sheet: own.ID,
						Step: sheet.Step{Kind: sheet.KindErase,
							Erase: &sheet.Erase{Path: zigzag, Radius: 1, Part: true}}})
					ops.Ops = append(ops.Ops, text)
				}
				data, _ := json.Marshal(ops)
				done := make(chan struct{})
				hub.callOps(ctx, attacker, data, func(reply any, err error) {
					if err != nil || strings.Contains(mustJSON(reply), string(refusal.TooMany)) {
						refused.Add(1)
					}
					close(done)
				})
				<-done
				time.Sleep(5 * time.Millisecond)
			}
		})
	}
	slowest := time.Duration(0)
	for range 100 {
		began := time.Now()
		if _, err := h.do(t, hub, sheet.Actor{ID: h.students[1].ID}, h.note("an ordinary lesson")); err != nil {
			t.Fatal(err)
		}
		slowest = max(slowest, time.Since(began))
		time.Sleep(10 * time.Millisecond)
	}
	close(stop)
	attack.Wait()
	t.Logf("slowest ordinary answer %v, %d messages of the attacker refused", slowest, refused.Load())
	if refused.Load() == 0 {
		t.Error("the attacker was never held back")
	}
	limit := 500 * time.Millisecond
	if underRace {
		limit = 5 * time.Second
	}
	if slowest > limit {
		t.Errorf("an ordinary operation waited %v", slowest)
	}
}

func mustJSON(v any) string {
	text, _ := json.Marshal(v)
	return string(text)
}

// What follows in one message on something that could not be stored may build on
// it: it is not decided, and refused for good, but sent again with it.
func TestWhatFollowsTheUnstored(t *testing.T) {
	t.Parallel()
	h := newHouse(t, 1)
	hub := h.hub(t)
	defer hub.Close(ctx)
	r, at := h.held(t, hub)
	x := 50.0
	for name, actor := range map[string]sheet.Actor{"student": {ID: h.students[0].ID}, "teacher": {Staff: true}} {
		var stopped atomic.Bool
		stopped.Store(true) // the one before, which adds the mark, was not stored
		answered := make(chan error, 1)
		hub.submit(&request{session: r, at: at, actor: actor, stopped: &stopped,
			op: sheet.Op{ID: store.NewID(), Sheet: h.sheet.ID, Step: sheet.Step{Kind: sheet.KindSet,
				Set: &sheet.Set{Mark: store.NewID(), Properties: lesson.Properties{X: &x}}}},
			done: func(_ sheet.Result, err error) { answered <- err }})
		if got := refusal.Of(<-answered); got == nil || got.Code != refusal.TooMany {
			t.Errorf("%s: %v", name, got)
		}
	}
}

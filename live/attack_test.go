package live

import (
	"encoding/json"
	"math/rand/v2"
	"os"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/core/voices"
	"alpenglow/store"

	"github.com/prometheus/client_golang/prometheus"
)

// Steps of the attack: ATTACK_STEPS, or so many.
func attackSteps() int {
	if n, err := strconv.Atoi(os.Getenv("ATTACK_STEPS")); err == nil {
		return n
	}
	if testing.Short() {
		return 1000
	}
	return 25_000
}

// A student who knows every id that a device of theirs knows does anything with
// them, anywhere, in any spelling, twice, at once with others, while the teacher
// changes the board: nothing panics, everything is answered, nobody's work but their
// own changes, and nothing reaches them that is not for them.
func TestAttack(t *testing.T) {
	t.Parallel()
	f := newBattle(t)
	first, second, third := f.board.Frames[0].ID, f.board.Frames[1].ID, f.board.Frames[2].ID
	staff := f.connect("staff", RoleStaff)
	kenji, vera := f.connect("Kenji", RoleStudent), f.connect("Vera", RoleStudent)
	class, later := staff.open(first)[0].Sheet, staff.open(third)[0].Sheet
	hidden := adding(class, secret+" hidden")
	staff.ops(hidden, step(class, sheet.Step{Kind: sheet.KindHide, Hide: &sheet.Hide{Mark: hidden.Add.Mark}}))
	held := adding(class, secret+" held")
	staff.ops(held, step(class, sheet.Step{Kind: sheet.KindHold, Hold: &sheet.Hold{Mark: held.Add.Mark}}))
	screen := f.connect("screen", RoleFront) // it shows the class's frame, and hears no more than the class
	staff.call(MethodCommand, session.Command{Kind: session.KindFront, Front: &session.Front{Kind: session.FrontFrame}})
	screen.call(MethodHello, Hello{})
	kenji.call(MethodHello, struct{}{})
	kenji.ops(adding(class, "Kenji's"), adding(class, "also Kenji's"))
	vera.call(MethodMove, Move{Frame: second})
	own := vera.open(second)[0].Sheet
	vera.ops(adding(own, secret+" on Vera's own frame"))

	// Kenji's own frame is one of those along which the class walks now and then.
	kenji.call(MethodMove, Move{Frame: second})
	visited := kenji.open(second)[0].Sheet
	kenji.ops(adding(visited, "Kenji's own"))
	kenji.call(MethodMove, Move{Frame: first})
	walks, remarks := false, 0

	noor := f.connect("Noor", RoleStudent)
	noor.call(MethodHello, struct{}{})
	noor.call(MethodMove, Move{Frame: second})
	mine := noor.open(second)[0].Sheet
	noor.call(MethodMove, Move{Frame: first})
	a := &attacker{Rand: rand.New(rand.NewPCG(uint64(time.Now().UnixNano()), 1))}
	seed := a.Uint64()
	a.Rand = rand.New(rand.NewPCG(seed, 2))
	t.Logf("seed %d", seed)
	targets := []string{class, mine, own, later, visited}
	for _, frame := range f.board.Frames[:2] {
		for _, m := range frame.Prepared {
			a.hot = append(a.hot, m.ID)
		}
	}
	for _, c := range f.board.Frames[1].Prepared[0].Poll.Choice.Options {
		a.hot = append(a.hot, c.ID)
	}
	known := len(a.hot)
	left, accepted, rounds, reworked := attackSteps(), 0, 0, 0
	for ; left > 0; rounds++ {
		noor.mu.Lock()
		a.pool = append(append(a.pool[:0], noor.pool...), targets...)
		noor.mu.Unlock()
		before := f.snapshot()
		switch a.IntN(11) {
		case 10: // the teacher changes the board meanwhile
			change := a.change(f.board.Frames[0], third)
			_, err := f.hub.Rework(ctx, f.id, "", func(d *store.Draft) error { return applyStep(ctx, d, change) })
			if err == nil {
				reworked++
			} else if refusal.Of(err) == nil {
				t.Fatalf("seed %d: changing the board: %v", seed, err)
			}
		case 0:
			on := a.some()
			if a.IntN(2) == 0 {
				on = targets[a.IntN(5)]
			}
			noor.call(MethodSince, Since{Sheet: on, Cursor: sheet.Cursor{Seq: int64(a.IntN(100)) - 1, After: a.some()}})
		case 1:
			noor.call(MethodOpen, Open{Frame: a.some()})
		case 2:
			have := map[string]sheet.Cursor{a.some(): {Seq: int64(a.IntN(100)) - 1, After: a.some()},
				targets[a.IntN(5)]: {Seq: int64(a.IntN(1000))}}
			noor.call(MethodMove, Move{Frame: a.some(), Have: have})
			noor.call(MethodHello, Hello{Have: have})
			noor.call(
				MethodHello,
				Hello{Show: &session.Front{Kind: session.FrontSheets, Frame: second, Owners: []string{a.some()}}},
			)
			screen.call(MethodHello, Hello{Have: have})
		case 3:
			noor.call(MethodTidy, Tidy{Sheet: targets[a.IntN(5)], Mark: a.some()})
			// What the class answers is nobody's but the staff's; one's own verdict comes when it is shown.
			if told := string(noor.call(MethodOutcome, AskOutcome{Frame: a.some()})); !strings.Contains(
				told,
				"problem",
			) {
				t.Fatalf("seed %d: told what others answered: %s", seed, told)
			}
			ask := AskVerdict{Sheet: targets[a.IntN(5)], Poll: a.some(), Round: a.IntN(4) - 1}
			told := string(noor.call(MethodVerdict, ask))
			all := string(noor.call(MethodResults, AskResults{Sheet: targets[a.IntN(5)]}))
			if strings.Contains(all, secret) {
				t.Fatalf("seed %d: told of others' answers: %s", seed, all)
			}
			if !strings.Contains(told, "problem") {
				running, err := f.hub.session(ctx, f.id)
				if err != nil {
					t.Fatal(err)
				}
				if state, _ := running.snapshot(); state.Polls[ask.Poll].Phase != poll.Revealed {
					t.Fatalf("seed %d: told before it was shown: %s", seed, told)
				}
			}
		case 4:
			noor.call(MethodCommand, []session.Command{{Kind: session.KindEnd, End: &session.End{}},
				{Kind: session.KindGo, Go: &session.Go{Frame: a.some()}},
				{Kind: session.KindLay, Lay: &session.Lay{Frame: first, Layout: lesson.Layout{Order: "hand"}}},
				{Kind: session.KindHold, Hold: &session.Hold{Frame: a.some()}},
				{Kind: session.KindNames, Names: &session.Names{Off: true}},
				{Kind: session.KindTalk, Talk: &session.SetTalk{Poll: a.some()}},
				{Kind: session.KindLift, Lift: &session.Lift{Cover: a.some()}},
				{Kind: session.KindWalk, Walk: &session.SetWalk{Frame: second, Stops: []string{a.some()},
					Replies: true}},
				{Kind: session.KindSeat, Seat: &session.SetSeat{Student: a.some(), Remove: true}}}[a.IntN(9)])
			noor.call(MethodWalk, WalkTo{Owner: a.some(), Known: []string{a.some()},
				Have: map[string]sheet.Cursor{targets[a.IntN(5)]: {Seq: int64(a.IntN(99))}}})
		case 5:
			noor.call(MethodSight, Sight{Away: a.IntN(2) == 0})
			noor.call(MethodSay, []voices.Word{{Kind: voices.KindLook, Look: &voices.Look{Student: a.some()}},
				{Kind: voices.KindPick, Pick: &voices.Pick{Without: []string{a.some()}}},
				{Kind: voices.KindTell, Tell: &voices.Tell{Student: a.some(), Text: "x", About: a.some()}},
				{Kind: voices.KindHand, Hand: &voices.Hand{In: a.IntN(2) == 0}},
				{Kind: voices.KindHeard, Heard: &voices.Heard{Until: int64(a.IntN(9)) - 1}}}[a.IntN(5)])
			pass, _ := json.Marshal(Pass{Sheet: targets[a.IntN(5)], Kind: PassEdit, Edit: &Edit{Mark: a.some()}})
			noor.mu.Lock()
			noor.conn.WriteJSON(map[string]any{"send": map[string]any{"data": json.RawMessage(pass)}})
			noor.mu.Unlock()
		case 6: // others go on meanwhile, in places that the attacker may not see
			staff.ops(adding(later, secret+" written where the class is not yet"),
				step(class, sheet.Step{Kind: sheet.KindSet,
					Set: &sheet.Set{Mark: hidden.Add.Mark,
						Properties: lesson.Properties{Text: text(secret + " rewritten")}}}))
			pass, _ := json.Marshal(Pass{Sheet: later, Kind: PassEdit, Edit: &Edit{Mark: secret}})
			staff.mu.Lock()
			staff.conn.WriteJSON(map[string]any{"send": map[string]any{"data": json.RawMessage(pass)}})
			staff.mu.Unlock()
			vera.ops(adding(own, secret+" more of Vera's"))
			kenji.ops(adding(class, "Kenji goes on"), adding(visited, "Kenji goes on by himself"))
			walk := &session.SetWalk{Stops: []string{}}
			if walks = !walks; walks {
				walk = &session.SetWalk{Frame: second, Stops: []string{f.ids[1]}, Own: a.IntN(2) == 0, Replies: true}
			}
			var told CommandReply
			text := staff.call(MethodCommand, session.Command{Kind: session.KindWalk, Walk: walk})
			if err := json.Unmarshal(text, &told); err != nil || (told.State.Walk != nil) != walks {
				t.Fatalf("seed %d: the walk could not begin or end: %s", seed, text)
			}
			before = f.snapshot()
		default:
			ops := make([]sheet.Op, 1+a.IntN(MaxOps))
			for i := range ops {
				ops[i] = step(targets[[]int{0, 0, 0, 1, 1, 1, 2, 3, 4, 4}[a.IntN(10)]], a.step(true))
				switch a.IntN(12) {
				case 0:
					ops[i].Sheet = a.some()
				case 1:
					ops[i].ID = a.some()
				case 2:
					ops[i] = ops[a.IntN(i+1)] // twice
				case 3:
					ops[i].Sheet = strings.ToUpper(ops[i].Sheet)
				}
			}
			for i, r := range noor.ops(ops...).Results {
				if r.Problem != nil {
					continue
				}
				accepted++
				if ops[i].Add != nil && ops[i].Add.Remark != nil {
					remarks++
				}
				if !id.IsUUID(ops[i].Sheet) || !id.IsV7(ops[i].ID) {
					t.Fatalf("seed %d: taken with another spelling: %q on %q", seed, ops[i].ID, ops[i].Sheet)
				}
				if ops[i].Add != nil {
					a.hot = append(a.hot, ops[i].Add.Mark, ops[i].ID)
				}
			}
			if len(a.hot) > known+40 {
				a.hot = slices.Delete(a.hot, known, len(a.hot)-40)
			}
			left -= len(ops)
		}
		f.check(before, walks)
		if rounds%50 == 0 && before[class] != nil && len(before[class].marks) > 120 {
			staff.ops(step(class, sheet.Step{Kind: sheet.KindClear, Clear: &sheet.Clear{Author: f.ids[0]}}))
		}
		if screen.leaked != "" {
			t.Fatalf("seed %d: the front screen was told %s", seed, screen.leaked)
		}
		if noor.leaked != "" {
			t.Fatalf("seed %d: the attacker was told %s", seed, noor.leaked)
		}
	}
	if accepted < attackSteps()/40 {
		t.Errorf("only %d operations were allowed: the attack attacks nothing", accepted)
	}
	if remarks == 0 && !testing.Short() {
		t.Error("nothing was said on the walk")
	}
	if reworked < rounds/200 {
		t.Errorf("the board was changed %d times only", reworked)
	}
	t.Logf("%d rounds, %d operations allowed, the board changed %d times, the slowest answer took %v: %s",
		rounds, accepted, reworked, f.slowest, f.slow)
	if n := f.panics(); n > 0 {
		t.Errorf("%v panics", n)
	}
}

func text(s string) *string { return &s }

// scene is a sheet as it was at a number.
type scene struct {
	frame, owner string
	seq          int64
	marks        map[string]lesson.Element
}

// snapshot gives all sheets in memory; those that have not changed are the same.
func (f *battle) snapshot() map[string]*scene {
	all := map[string]*scene{}
	f.hub.mu.Lock()
	defer f.hub.mu.Unlock()
	for id, at := range f.hub.sheets {
		now := f.last[id]
		at.with(func(s *sheet.Sheet) {
			if now != nil && now.seq == s.Seq {
				return
			}
			now = &scene{frame: at.key.Frame, owner: at.key.Owner, seq: s.Seq, marks: map[string]lesson.Element{}}
			for _, m := range s.Marks() {
				now.marks[m.ID] = m
			}
		})
		if now != nil {
			all[id] = now
		}
	}
	f.last = all
	return all
}

// check compares all that there is with what there was before the attacker did
// something: only what is theirs may differ, and pieces, and agreement; and while the
// class walks, what they say about another's work.
func (f *battle) check(before map[string]*scene, walks bool) {
	f.t.Helper()
	r, err := f.hub.session(ctx, f.id)
	if err != nil {
		f.t.Fatal(err)
	}
	_, board := r.snapshot()
	me, prepared := f.ids[0], board.taken
	for key, now := range f.snapshot() {
		then := before[key]
		if then == now || then == nil {
			continue
		}
		for id, m := range now.marks {
			old, was := then.marks[id]
			if was && reflect.DeepEqual(old, m) {
				continue
			}
			shared := now.frame == f.board.Frames[0].ID && now.owner == sheet.ClassOwner
			if walks && now.owner == f.ids[1] && m.Author == me && m.Remark != nil && (!was || old.Author == me) {
				continue
			}
			if !shared && now.owner != me || now.frame == f.board.Frames[2].ID {
				f.t.Fatalf("the attacker changed the sheet of %s: %+v", now.owner, m)
			}
			if prepared[id] && !m.IsAnswer() && m.Kind != lesson.KindPlaced {
				f.t.Fatalf("the attacker made a %s with an id of the board", m.Kind)
			}
			if m.Placed != nil && m.Placed.Piece == id {
				if m.Placed.Piece == f.board.Frames[0].Prepared[4].ID {
					f.t.Fatal("the attacker moved a piece under a cover")
				}
				continue
			}
			if was && m.Kind == lesson.KindNote && m.Author != me {
				old.Agreed, m.Agreed = nil, nil
				if reflect.DeepEqual(old, m) {
					continue
				}
			}
			if m.Author != me || was && old.Author != me || m.Stands() == lesson.Hidden || m.Stands() == lesson.Held {
				f.t.Fatalf("the attacker changed what is not theirs on %s:\n%+v\n%+v", key, old, m)
			}
		}
	}
}

func (f *battle) panics() float64 {
	sum := 0.0
	metrics := make(chan prometheus.Metric, 20)
	go func() { f.hub.metrics.panics.Collect(metrics); close(metrics) }()
	for m := range metrics {
		sum += valueOf(m)
	}
	return sum
}

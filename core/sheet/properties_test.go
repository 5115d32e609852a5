package sheet_test

import (
	"encoding/json"
	"fmt"
	"maps"
	"math/rand/v2"
	"os"
	"reflect"
	"slices"
	"strconv"
	"testing"

	"alpenglow/core/audience"
	"alpenglow/core/lesson"
	"alpenglow/core/sheet"
)

// taken is an operation as a client sends it that takes something back.
func taken(undo sheet.Op) sheet.Op {
	undo.ID, undo.Back = v7(), true
	return undo
}

// picture is what a client has that starts from nothing and takes what it is sent.
type picture map[string]lesson.Element

func (p picture) take(c sheet.Change) {
	for _, e := range c.Put {
		if old, was := p[e.ID]; was && e.Stroke != nil && len(e.Stroke.Points) == 0 {
			stroke := *e.Stroke
			stroke.Points = old.Stroke.Points
			e.Stroke = &stroke
		}
		p[e.ID] = e
	}
	for _, id := range c.Gone {
		delete(p, id)
	}
}

func remark(text string) lesson.Body {
	return lesson.Body{Kind: lesson.KindRemark, Remark: &lesson.Remark{Text: text}}
}

func byID(marks []lesson.Element) picture {
	p := picture{}
	for _, e := range marks {
		p[e.ID] = e
	}
	return p
}

// randomOp makes an operation that is often allowed and often not.
func randomOp(rnd *rand.Rand, marks []string) sheet.Op {
	mark := v7()
	if len(marks) > 0 {
		mark = marks[rnd.IntN(len(marks))]
	}
	switch rnd.IntN(25) {
	case 0, 1:
		return addNote(v7(), fmt.Sprint("note ", rnd.IntN(100)))
	case 2:
		return addStroke(v7(), 0, 0, .5, 30, 40, .7)
	case 3:
		return moveTo(mark, float64(rnd.IntN(1500)), float64(rnd.IntN(900)))
	case 4:
		return setText(mark, fmt.Sprint("text ", rnd.IntN(100)))
	case 5:
		return target(sheet.KindRemove, mark)
	case 6, 7:
		return target(sheet.KindRestore, mark)
	case 8:
		return target(sheet.KindHide, mark)
	case 9:
		return target([]sheet.Kind{sheet.KindShow, sheet.KindHold}[rnd.IntN(2)], mark)
	case 10, 11:
		return erase(rnd.IntN(2) == 0, float64(rnd.IntN(60)), float64(rnd.IntN(60)), float64(rnd.IntN(60)),
			float64(rnd.IntN(60)))
	case 12:
		return agree(mark, rnd.IntN(2) == 0)
	case 13:
		return clear([]string{"", "noor", "kenji", "staff"}[rnd.IntN(4)])
	case 14, 15:
		x, turn, group := float64(rnd.IntN(1300)), float64(rnd.IntN(360)), v7()
		return many(addNote(v7(), "one of many"), set(mark, func(s *sheet.Set) { s.Turn, s.Group = &turn, &group }),
			moveTo(mark, x, x/2), target(sheet.KindRemove, mark))
	case 16:
		w, h, z := float64(rnd.IntN(300)), float64(rnd.IntN(300)), int64(rnd.IntN(40)-20)
		return set(mark, func(s *sheet.Set) { s.W, s.H, s.Z = &w, &h, &z })
	case 17:
		return connector(v7(), lesson.Anchor{Mark: mark, X: 5, Y: 6}, lesson.Anchor{X: float64(rnd.IntN(1600)), Y: 7})
	case 18:
		free := addNote(v7(), "where there is room")
		free.Add.Free = true
		return free
	case 19, 20:
		return moveTo([]string{"card", "secret", "pin"}[rnd.IntN(3)], float64(rnd.IntN(1500)), float64(rnd.IntN(900)))
	case 21:
		return target([]sheet.Kind{sheet.KindRemove, sheet.KindRestore, sheet.KindHide}[rnd.IntN(3)], "card")
	case 22:
		return pinned(v7())
	case 23:
		return sheet.Op{ID: v7(), Step: sheet.Step{Kind: sheet.KindSpread, Spread: &sheet.Spread{}}}
	default:
		return answer([]string{"a", "b", "", "z"}[rnd.IntN(4)])
	}
}

// steps gives how many steps of a property are tried: STEPS, or so many.
func steps(usual int) int {
	if n, err := strconv.Atoi(os.Getenv("STEPS")); err == nil {
		return n
	}
	return usual
}

// Whatever people do, whatever waits for a yes, and whoever walks along: a student changes only their own marks and
// only what they see, a visitor nothing but own remarks; what a student is sent adds up to exactly what they may see;
// undo restores the sheet exactly; and the history replayed gives the same sheet.
func TestProperties(t *testing.T) {
	for seed := range uint64(steps(18_000) / 60) {
		rnd := rand.New(rand.NewPCG(seed, 7))
		r, owner, noor, kenji, amara := rules(lesson.WholeClass, lesson.Add), "class", noor, kenji, amara
		switch seed % 4 {
		case 0:
			r, owner = rules(lesson.Individual, lesson.Add), "noor"
		case 1:
			r, owner = rules(lesson.Groups, lesson.Add), sheet.GroupOwner(1)
			noor.Group, amara.Group, kenji.Group = 1, 1, 2
		}
		s, replayed := sheet.New(owner), sheet.New(owner)
		streams := map[sheet.Actor]picture{staff: {}, noor: {}, kenji: {}, amara: {}}
		walkers, front, all := picture{}, picture{}, []sheet.Change{}
		walking, inFront := audience.Class().Walking([]string{owner}), audience.Front([]string{owner})
		actors := []sheet.Actor{staff, noor, noor, kenji, amara}
		var marks []string
		take := func(c sheet.Change) {
			stored, err := json.Marshal(c)
			if err != nil {
				t.Fatal(err)
			}
			var back sheet.Change
			if err := json.Unmarshal(stored, &back); err != nil {
				t.Fatal(err)
			}
			replayed.Take(back)
			replayed.Take(back) // twice does nothing
			all = append(all, c)
			walkers.take(walking.Change(s, c))
			front.take(inFront.Change(s, c))
			for a, p := range streams {
				if !a.Shares(owner) {
					continue
				}
				seen := audience.Of(a).Change(s, c)
				if seen.Seq != c.Seq {
					t.Fatalf("seed %d: a hole at %d", seed, c.Seq)
				}
				for _, e := range seen.Put {
					if !audience.Of(a).Mark(e) {
						t.Fatalf("seed %d: %s was sent mark %s that is not for the class", seed, a.ID, e.ID)
					}
				}
				p.take(seen)
			}
		}
		// What each had, and how far, when their network broke.
		broke, had := map[sheet.Actor]sheet.Cursor{}, map[sheet.Actor]picture{}
		for range 60 {
			if gone := actors[rnd.IntN(len(actors))]; rnd.IntN(20) == 0 {
				broke[gone], had[gone] = sheet.Cursor{Seq: s.Seq}, maps.Clone(streams[gone])
			}
			switch rnd.IntN(12) {
			case 0:
				r.Hold = !r.Hold
			case 1:
				r.HeldOf = [][]string{nil, {"kenji"}}[rnd.IntN(2)]
			case 2:
				r.Visited = [][]string{nil, {owner}}[rnd.IntN(2)]
			}
			a := actors[rnd.IntN(len(actors))]
			op := randomOp(rnd, marks)
			switch rnd.IntN(14) {
			case 0, 1:
				op = add(sheet.Add{Mark: v7(), Body: remark(fmt.Sprint("remark ", rnd.IntN(100)))})
			case 2:
				back := rnd.IntN(len(all) + 1)
				op = setBack(int64(back))
				then := sheet.New(owner)
				for _, c := range all[:back] {
					then.Take(c)
				}
				op.SetBack.Given(then.Marks(), nil)
			}
			before := byID(s.Marks())
			result, err := apply(s, r, a, op)
			after := byID(s.Marks())
			if err != nil {
				if !reflect.DeepEqual(before, after) {
					t.Fatalf("seed %d: refused %s changed the sheet", seed, op.Kind)
				}
				continue
			}
			for id := range after {
				if _, was := before[id]; !was {
					marks = append(marks, id)
				}
			}
			for id, e := range after {
				old, was := before[id]
				if a.Staff || was && reflect.DeepEqual(old, e) {
					continue
				}
				if was && e.Kind == lesson.KindNote && op.Kind == sheet.KindAgree {
					old.Agreed, e.Agreed = nil, nil
					if !reflect.DeepEqual(old, e) || e.Author == a.ID {
						t.Fatalf("seed %d: agreeing changed the note", seed)
					}
					continue
				}
				if e.Kind == lesson.KindPlaced && e.Placed.Piece == "secret" && e.By != "" {
					t.Fatalf("seed %d: %s moved a piece under a cover", seed, a.ID)
				}
				// Pieces are everybody's to move.
				if e.Kind == lesson.KindPlaced && e.ID == e.Placed.Piece && a.Shares(owner) &&
					e.Stands() != lesson.Hidden {
					continue
				}
				visits := e.Remark != nil && r.Visited != nil
				if e.Author != a.ID || was && (old.Author != a.ID || old.Stands() == lesson.Hidden) ||
					!a.Shares(owner) && !visits {
					t.Fatalf("seed %d: %s changed %s by %s", seed, a.ID, op.Kind, e.Author)
				}
			}
			take(result.Change)
			if rnd.IntN(2) == 0 {
				back := taken(result.Undo)
				if back.SetBack != nil {
					var put []string
					for _, m := range result.Change.Put {
						put = append(put, m.ID)
					}
					back.SetBack.Given(slices.Collect(maps.Values(before)), put)
				}
				waits := !a.Staff && (r.Hold || r.HeldOf != nil)
				undone, err := apply(s, r, a, back)
				if err != nil {
					t.Fatalf("seed %d: undo of %s: %v", seed, op.Kind, err)
				}
				if !reflect.DeepEqual(there(before, waits), there(byID(s.Marks()), waits)) {
					t.Fatalf("seed %d: undo of %s by %q left a difference", seed, op.Kind, a.ID)
				}
				take(undone.Change)
			}
		}
		if !reflect.DeepEqual(s.Marks(), replayed.Marks()) || s.Seq != replayed.Seq {
			t.Fatalf("seed %d: the replayed sheet differs", seed)
		}
		if !reflect.DeepEqual(walkers, byID(walking.Marks(s))) || !reflect.DeepEqual(front, byID(inFront.Marks(s))) {
			t.Fatalf("seed %d: those who walk along, or see it in front, have another picture", seed)
		}
		for id, m := range walkers {
			if m.Stands() != lesson.Shown {
				t.Fatalf("seed %d: those who walk along see %s, which is not shown", seed, id)
			}
		}
		for a, p := range streams {
			if !a.Shares(owner) {
				continue
			}
			if !reflect.DeepEqual(p, byID(audience.Of(a).Marks(s))) {
				t.Fatalf("seed %d: what %q was sent differs from what they may see", seed, a.ID)
			}
			// What fills holes, in portions as small as can be, adds up to the same.
			late := picture{}
			for at, more := (sheet.Cursor{}), true; more; {
				part := s.Since(at, 1+rnd.IntN(2000), audience.Of(a).Mark)
				for _, e := range part.Put {
					if !audience.Of(a).Mark(e) {
						t.Fatalf("seed %d: filling up shows %q what is put away", seed, a.ID)
					}
				}
				late.take(sheet.Change{Put: part.Put, Gone: part.Gone})
				at, more = part.To, part.More
			}
			if !reflect.DeepEqual(p, late) {
				t.Fatalf("seed %d: the history gives %q another picture", seed, a.ID)
			}
			if back, ok := had[a]; ok {
				for at, more := broke[a], true; more; {
					part := s.Since(at, 1+rnd.IntN(2000), audience.Of(a).Mark)
					if part.Anew {
						back = picture{}
					}
					back.take(sheet.Change{Put: part.Put, Gone: part.Gone})
					at, more = part.To, part.More
				}
				if !reflect.DeepEqual(p, back) {
					t.Fatalf("seed %d: %q, who comes back, gets another picture", seed, a.ID)
				}
			}
		}
	}
}

// there leaves out what was removed: it can be restored but is on nobody's frame.
func there(p picture, waits bool) picture {
	kept := picture{}
	for id, e := range p {
		if e.OnFrame() {
			e.By = "" // who changed it last is not taken back, nor who put it away
			if e.Standing != nil {
				standing := *e.Standing
				standing.By = ""
				e.Standing = &standing
			}
			if waits && e.Stands() == lesson.Held {
				e.Standing = nil // what waits goes on waiting
			}
			kept[id] = e
		}
	}
	return kept
}

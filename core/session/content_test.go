package session_test

import (
	"encoding/json"
	"math/rand/v2"
	"reflect"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/session"
)

// Whatever is prepared, covered and asked: a content made from another is the
// one that would have been told whole, and knowing it leaves it out.
func TestContentsAreMadeFromEachOther(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 5))
	marks := make([]lesson.Element, 12)
	for i := range marks {
		id := string(rune('a' + i))
		marks[i] = lesson.Element{ID: id, Z: int64(i), X: float64(i * 40), W: 100, H: 100,
			Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: "note " + id, Tint: "moss"}}}
		switch {
		case i%4 == 3:
			marks[i].Body = lesson.Body{Kind: lesson.KindCover, Cover: &lesson.Cover{Tint: "moss"}}
		case i%4 == 2:
			marks[i].Body = lesson.Body{Kind: lesson.KindPoll, Poll: &poll.Question{Text: "When?",
				Body: poll.Offer(poll.Option{ID: "o", Text: "now", Right: true})}}
		}
	}
	random := func() session.View {
		b := lesson.Board{Frames: []lesson.Frame{{ID: "f"}}}
		s := session.State{Frame: "f", Polls: map[string]poll.State{}}
		for _, m := range marks {
			if r.IntN(5) > 0 {
				b.Frames[0].Prepared = append(b.Frames[0].Prepared, m)
			}
			if m.Kind == lesson.KindCover && r.IntN(2) == 0 {
				s.Lifted = append(s.Lifted, m.ID)
			}
			if m.Kind == lesson.KindPoll {
				s.Polls[m.ID] = poll.State{
					Phase: []poll.Phase{poll.Open, poll.Closed, poll.Revealed}[r.IntN(3)],
					Round: 1,
				}
			}
		}
		if r.IntN(4) == 0 {
			r.Shuffle(len(b.Frames[0].Prepared), func(i, j int) {
				p := b.Frames[0].Prepared
				p[i], p[j] = p[j], p[i]
			})
		}
		v, err := s.View(b, "f", session.View{})
		if err != nil {
			t.Fatal(err)
		}
		return v
	}
	whole, changed := 0, 0
	for range 2000 {
		before, now := random(), random()
		stage := session.Stage{Frame: now.Frame, Content: now.Content}
		told := stage.Changed(now.Since(before))
		if told.Change == nil {
			whole++
			if !reflect.DeepEqual(told, stage) {
				t.Fatalf("%+v told as %+v", stage, told)
			}
			continue
		}
		changed++
		if len(told.Frame.Prepared) != 0 {
			t.Fatal("told twice")
		}
		got, _ := json.Marshal(told.Change.Apply(before.Frame.Prepared))
		want, _ := json.Marshal(now.Frame.Prepared)
		if told.Change.From != before.Content || string(got) != string(want) {
			t.Fatalf("made %s\nof %+v\nnot %s", got, told.Change, want)
		}
	}
	if whole == 0 || changed < 1000 {
		t.Errorf("%d told whole, %d as changes", whole, changed)
	}
	// What is used again of an earlier view is what would have been made anew.
	b := lesson.Board{Frames: []lesson.Frame{{ID: "f", Prepared: marks}}}
	last := session.View{}
	for range 300 {
		s := session.State{Frame: "f", Polls: map[string]poll.State{"c": {Phase: poll.Open, Round: 1 + r.IntN(2)}}}
		if r.IntN(2) == 0 {
			s.Lifted = []string{"d", "another frame's"}[:1+r.IntN(2)]
		}
		fresh, err := s.View(b, "f", session.View{})
		if last, _ = s.View(b, "f", last); err != nil || !reflect.DeepEqual(last, fresh) {
			t.Fatalf("%+v, made anew %+v, %v", last, fresh, err)
		}
	}
	now := random()
	stage := session.Stage{Frame: now.Frame, Content: now.Content}
	if got := stage.Knowing([]string{"other"}); !reflect.DeepEqual(got, stage) {
		t.Errorf("left out what is not known: %+v", got)
	}
	if got := stage.Knowing([]string{"other", now.Content}); len(got.Frame.Prepared) != 0 ||
		got.Change.From != now.Content ||
		len(got.Change.Put)+len(got.Change.Gone) != 0 {
		t.Errorf("%+v", got)
	}
}

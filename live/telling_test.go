package live

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"testing"

	"alpenglow/core/session"
	"alpenglow/core/sheet"
)

// Changes are told as one where they may be, and never to somebody they were not
// for: who left a group is in no later telling, who joined it in no earlier one.
func TestJoined(t *testing.T) {
	t.Parallel()
	changes := func(on string, seq int64, channels ...string) telling {
		return telling{channels, News{Kind: NewsChanges, Changes: &SheetChanges{Sheet: on, Seq: seq,
			Changes: []sheet.Change{{Seq: seq}}}}}
	}
	state := telling{[]string{"staff:s"}, News{Kind: NewsState}}
	for name, c := range map[string]struct {
		some []telling
		want string
	}{
		"one sheet": {[]telling{changes("a", 1, "one:x"), changes("a", 2, "one:x")}, "a[1 2]one:x"},
		"two sheets between each other": {[]telling{changes("a", 1, "one:x"), changes("b", 1, "one:x"),
			changes("a", 2, "one:x")}, "a[1 2]one:x b[1]one:x"},
		"something else between": {[]telling{changes("a", 1, "one:x"), state, changes("a", 2, "one:x")},
			"a[1]one:x staff:s a[2]one:x"},
		"one left": {[]telling{changes("a", 1, "one:x", "one:y"), changes("a", 2, "one:x")},
			"a[1]one:x,one:y a[2]one:x"},
		"one came": {[]telling{changes("a", 1, "one:x"), changes("a", 2, "one:x", "one:y")},
			"a[1]one:x a[2]one:x,one:y"},
	} {
		var got []string
		for _, n := range joined(c.some) {
			said := strings.Join(n.channels, ",")
			if on := n.news.Changes; on != nil {
				seqs := []int64{}
				for _, change := range on.Changes {
					seqs = append(seqs, change.Seq)
				}
				said = fmt.Sprintf("%s%d%s", on.Sheet, seqs, said)
			}
			got = append(got, said)
		}
		if s := strings.Join(got, " "); s != c.want {
			t.Errorf("%s: %s, not %s", name, s, c.want)
		}
	}
}

// A frame's content is told once: lifting a cover tells what was under it, and
// who knows the content of a frame is not told it again.
func TestContentIsToldOnce(t *testing.T) {
	t.Parallel()
	f := newBattle(t)
	first := f.board.Frames[0]
	noor := f.connect("Noor", RoleStudent)
	var hello, again StudentHello
	read := func(text json.RawMessage, into any) {
		t.Helper()
		if err := json.Unmarshal(text, into); err != nil {
			t.Fatal(err)
		}
	}
	read(noor.call(MethodHello, Hello{}), &hello)
	read(noor.call(MethodHello, Hello{Known: []string{hello.Stage.Content}}), &again)
	if hello.Stage.Change != nil || len(hello.Stage.Frame.Prepared) < 3 || again.Stage.Content != hello.Stage.Content ||
		len(again.Stage.Frame.Prepared) != 0 || again.Stage.Change == nil {
		t.Fatalf("first %+v\nagain %+v", hello.Stage, again.Stage)
	}
	r, err := f.hub.session(ctx, f.id)
	if err != nil {
		t.Fatal(err)
	}
	lid := first.Prepared[len(first.Prepared)-1].ID
	state, board := r.snapshot()
	next, err := state.Apply(board.Board, session.Command{Kind: session.KindLift, Lift: &session.Lift{Cover: lid}},
		session.With{})
	if err != nil {
		t.Fatal(err)
	}
	told := 0
	for _, n := range r.become(next, board, true) {
		if n.news.Kind != NewsStage {
			continue
		}
		told++
		stage := *n.news.Stage
		want, err := next.View(board.Board, first.ID, session.View{})
		if err != nil {
			t.Fatal(err)
		}
		c := stage.Change
		if c == nil || c.From != hello.Stage.Content || len(stage.Frame.Prepared) != 0 || len(c.Put) != 2 ||
			!slices.Equal(c.Gone, []string{lid}) {
			t.Fatalf("told %+v", stage)
		}
		if got := c.Apply(hello.Stage.Frame.Prepared); len(got) != len(want.Frame.Prepared) ||
			stage.Content != want.Content {
			t.Errorf("made %+v of %s", got, stage.Content)
		}
	}
	if told == 0 {
		t.Error("no student was told")
	}
}

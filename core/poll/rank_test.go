package poll_test

import (
	"fmt"
	"slices"
	"testing"

	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

// The example of four towns that votes are often explained with: 42, 26, 15 and 17 of 100
// put M, N, C and K in order; by points N comes first with 194, before C 173, M 126 and K 107
// (the capital of Tennessee, as commonly shown for the Borda count; from memory, and added up by hand).
func TestPoints(t *testing.T) {
	q := poll.Question{
		Text: "Where?",
		Body: poll.ByPreference(poll.Option{ID: "m", Text: "M"}, poll.Option{ID: "n", Text: "N"},
			poll.Option{ID: "c", Text: "C"}, poll.Option{ID: "k", Text: "K"}),
	}
	if err := q.Check(); err != nil {
		t.Fatal(err)
	}
	var votes []poll.Value
	for order, n := range map[string]int{"mnck": 42, "nckm": 26, "cknm": 15, "kcnm": 17} {
		for range n {
			var ids []string
			for _, r := range order {
				ids = append(ids, string(r))
			}
			votes = append(votes, poll.InOrder(ids...))
		}
	}
	got := q.Tally(votes)
	var points []string
	for _, rung := range got.Chart.Ladder.Rungs {
		points = append(points, rung.ID+fmt.Sprint(rung.Points))
	}
	if fmt.Sprint(points) != "[n194 c173 m126 k107]" || got.Answered != 100 || got.Verdicts != nil {
		t.Errorf("%v, %+v", points, got)
	}
	if got := q.Says(poll.InOrder("c", "k", "n", "m")); got != "1. C, 2. K, 3. N, 4. M" {
		t.Error(got)
	}
	if q.HasRight() || q.Judge(poll.InOrder("c", "k", "n", "m")).Verdict != poll.NoVerdict {
		t.Error("a preference is right")
	}
}

// An order is all of the things, each once; nothing else is an answer, and nothing panics.
func TestOrders(t *testing.T) {
	options := []poll.Option{{ID: "a"}, {ID: "b"}, {ID: "c"}}
	q := poll.Question{Body: poll.ByPreference(options...)}
	all := []string{"a", "b", "c", "d", ""}
	right := 0
	for n := range 5 * 5 * 5 * 5 {
		var ids []string
		for k := n; k > 0; k /= 5 {
			ids = append(ids, all[k%5])
		}
		sorted := slices.Sorted(slices.Values(ids))
		v := poll.InOrder(ids...)
		if err := q.Takes(v); (err == nil) != slices.Equal(sorted, []string{"a", "b", "c"}) {
			t.Fatalf("%q: %v", ids, err)
		} else if err == nil {
			right++
		}
		q.Tally([]poll.Value{v})
		q.Says(v)
	}
	if right == 0 {
		t.Error("no order was an answer")
	}
	if err := q.Takes(poll.Choose("a")); err == nil {
		t.Error("a choice is an order")
	}
	many := make([]poll.Option, poll.MaxRanked+1)
	for i := range many {
		many[i].ID = fmt.Sprint(i)
	}
	for _, body := range []poll.Body{poll.ByPreference(many...), poll.ByPreference(options[0]),
		poll.ByPreference(poll.Option{ID: "a", Right: true}, poll.Option{ID: "b"}), {Kind: poll.KindRank}} {
		if err := (poll.Question{Body: body}).Check(); refusal.Of(err) == nil {
			t.Errorf("%+v is taken", body)
		}
	}
}

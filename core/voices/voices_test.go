package voices_test

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"alpenglow/core/refusal"
	"alpenglow/core/voices"
)

// ids as devices make them, in order.
func question(n int) string { return fmt.Sprintf("01900000-0000-7000-8000-%012d", n) }

func codeOf(err error) refusal.Code {
	if r := refusal.Of(err); r != nil {
		return r.Code
	}
	return ""
}

func ask(n int, text string) voices.Word {
	return voices.Word{Kind: voices.KindAsk, Ask: &voices.Ask{ID: question(n), Text: text}}
}

func agree(n int, yes bool) voices.Word {
	return voices.Word{Kind: voices.KindAgree, Agree: &voices.Agree{Question: question(n), Yes: yes}}
}

func TestWords(t *testing.T) {
	noor := voices.With{By: "noor", Open: []string{"one"}}
	kenji := voices.With{By: "kenji", Open: []string{"one"}}
	staff := voices.With{Staff: true}
	let := func(s voices.Settings) voices.Word { return voices.Word{Kind: voices.KindLet, Let: &s} }
	hide := voices.Word{Kind: voices.KindHide, Hide: &voices.Hide{Question: question(1), Yes: true}}
	tick := voices.Word{Kind: voices.KindTick, Tick: &voices.Tick{Question: question(1), Yes: true}}
	help := voices.Word{Kind: voices.KindHelp, Help: &voices.Help{Yes: true}}
	come := voices.Word{Kind: voices.KindCome, Come: &voices.Come{Student: "noor"}}
	done := func(frame string) voices.Word {
		return voices.Word{Kind: voices.KindDone, Done: &voices.Done{Frame: frame, Yes: true}}
	}
	type said struct {
		with voices.With
		word voices.Word
	}
	for _, c := range []struct {
		name string
		said []said
		want refusal.Code // of the last
	}{
		{"a question", []said{{noor, ask(1, "Why two?")}}, ""},
		{"sent again", []said{{noor, ask(1, "Why two?")}, {noor, ask(1, "Why two?")}}, ""},
		{"under another's id", []said{{noor, ask(1, "Why two?")}, {kenji, ask(1, "Mine")}}, refusal.MarkExists},
		{"no words", []said{{noor, ask(1, "  ")}}, refusal.EmptyNote},
		{"600 letters without a blank", []said{{noor, ask(1, strings.Repeat("x", 600))}}, refusal.TextTooLong},
		{"a question that turns the text around", []said{{noor, ask(1, "a\u202Eb")}}, refusal.TextControl},
		{"a question with a bell", []said{{noor, ask(1, "a\ab")}}, refusal.TextControl},
		{"an id of another spelling", []said{{noor, voices.Word{Kind: voices.KindAsk,
			Ask: &voices.Ask{ID: strings.ToUpper("01900000-0000-7000-8000-00000000000a"), Text: "x"}}}}, refusal.BadID},
		{"asking is off", []said{{staff, let(voices.Settings{Off: true})},
			{noor, ask(1, "Why?")}}, refusal.QuestionsOff},
		{"agreeing with what is not seen", []said{{noor, ask(1, "Why?")},
			{kenji, agree(1, true)}}, refusal.NoSuchQuestion},
		{"agreeing", []said{{staff, let(voices.Settings{ForAll: true})}, {noor, ask(1, "Why?")},
			{kenji, agree(1, true)}}, ""},
		{"agreeing with oneself", []said{{staff, let(voices.Settings{ForAll: true})}, {noor, ask(1, "Why?")},
			{noor, agree(1, true)}}, refusal.NoSuchQuestion},
		{"agreeing with what was hidden", []said{{staff, let(voices.Settings{ForAll: true})}, {noor, ask(1, "Why?")},
			{staff, hide}, {kenji, agree(1, true)}}, refusal.NoSuchQuestion},
		{"a student ticks", []said{{noor, ask(1, "Why?")}, {noor, tick}}, refusal.NotYours},
		{"a student hides", []said{{noor, ask(1, "Why?")}, {noor, hide}}, refusal.NotYours},
		{"a student lets", []said{{noor, let(voices.Settings{ForAll: true})}}, refusal.NotYours},
		{"the staff asks", []said{{staff, ask(1, "Why?")}}, refusal.NotYours},
		{"the staff needs help", []said{{staff, help}}, refusal.NotYours},
		{"help comes", []said{{noor, help}, {staff, come}}, ""},
		{"help comes to nobody", []said{{staff, come}}, ""},
		{"done with a frame to come", []said{{noor, done("two")}}, refusal.NoSuchFrame},
		{"done", []said{{noor, done("one")}, {noor, done("one")}}, ""},
		{"kind without body", []said{{noor, voices.Word{Kind: voices.KindAsk}}}, refusal.UnknownOp},
	} {
		var v voices.Voices
		for i, s := range c.said {
			next, err := v.Say(s.word, s.with)
			want := c.want
			if i < len(c.said)-1 {
				want = ""
			}
			if got := codeOf(err); got != want {
				t.Errorf("%s, word %d: %q, want %q", c.name, i, got, want)
			}
			v = next
		}
	}
}

// waiting counts the questions of a student that wait.
func waiting(v voices.Voices, student string) int {
	n := 0
	for _, q := range v.Questions {
		if q.By == student && !q.Ticked {
			n++
		}
	}
	return n
}

// Whatever is said, by whomever, twice and in any order: nothing is written to that
// somebody may hold; nobody learns of a question, a name, a call or of who is done
// what is not theirs to know; and no list grows without end.
func TestAnyWords(t *testing.T) {
	if testing.Short() {
		t.Skip("takes seconds")
	}
	students := []string{"noor", "kenji", "vera", "omar"}
	for seed := range uint64(40) {
		chance := rand.New(rand.NewPCG(seed, 9))
		var v voices.Voices
		taken := 0
		for n := range 700 {
			by := students[chance.IntN(4)]
			with := voices.With{
				By:       by,
				Now:      int64(n),
				Open:     []string{"one"},
				Students: students,
				Staff:    chance.IntN(4) == 0,
			}
			some, yes := question(chance.IntN(n+1)), chance.IntN(3) > 0
			words := []voices.Word{ask(n, "of "+by+" "+fmt.Sprint(n)), ask(n, "of "+by+" "+fmt.Sprint(n)),
				{Kind: voices.KindAgree, Agree: &voices.Agree{Question: some, Yes: yes}},
				{Kind: voices.KindHelp, Help: &voices.Help{Yes: yes}},
				{Kind: voices.KindDone, Done: &voices.Done{Frame: []string{"one", "two"}[chance.IntN(2)], Yes: yes}},
				{Kind: voices.KindTick, Tick: &voices.Tick{Question: some, Yes: yes}},
				{Kind: voices.KindHide, Hide: &voices.Hide{Question: some, Yes: yes}},
				{Kind: voices.KindCome, Come: &voices.Come{Student: students[chance.IntN(4)], Been: yes}},
				{
					Kind: voices.KindLet,
					Let:  &voices.Settings{Off: chance.IntN(5) == 0, ForAll: yes, Named: chance.IntN(2) == 0},
				}}
			before, _ := json.Marshal(v)
			word := words[chance.IntN(len(words))]
			next, err := v.Say(word, with)
			if word.Ask != nil && next.Rev != v.Rev && waiting(next, by) > voices.MaxOfOne {
				t.Fatalf("seed %d: %s has asked %d", seed, by, waiting(next, by))
			}
			if after, _ := json.Marshal(v); string(before) != string(after) {
				t.Fatalf("seed %d: the voices given were written to", seed)
			}
			if err != nil && next.Rev != v.Rev {
				t.Fatalf("seed %d: refused and changed", seed)
			}
			if err == nil {
				taken++
			}
			v = next
			for _, s := range students {
				own, class := v.ForStudent(s), v.ForClass()
				for _, q := range class.Questions {
					if !v.ForAll || q.By != "" && !v.Named {
						t.Fatalf("seed %d: the class is told %+v", seed, q)
					}
				}
				text, _ := json.Marshal(own)
				for _, other := range students {
					if other != s && strings.Contains(string(text), other) {
						t.Fatalf("seed %d: %s is told %s", seed, s, text)
					}
				}
				for _, q := range v.Questions {
					if q.Hidden &&
						slices.ContainsFunc(class.Questions, func(a voices.Asked) bool { return a.ID == q.ID }) {
						t.Fatalf("seed %d: the class sees what is hidden", seed)
					}
				}
				if len(v.Help) > 4 || len(v.Done["one"]) > 4 || v.Done["two"] != nil {
					t.Fatalf("seed %d: %d need help, done %v", seed, len(v.Help), v.Done)
				}
			}
		}
		if taken < 100 {
			t.Errorf("seed %d: only %d words were taken", seed, taken)
		}
	}
}

// One student who asks 500 questions has five, and the others can ask all the same.
func TestManyQuestions(t *testing.T) {
	var v voices.Voices
	refused := 0
	for n := range 500 {
		next, err := v.Say(ask(n, "Why?"), voices.With{By: "noor"})
		if codeOf(err) == refusal.QuestionsWait {
			refused++
		}
		v = next
	}
	if len(v.Questions) != voices.MaxOfOne || refused != 500-voices.MaxOfOne {
		t.Errorf("%d questions, %d refused", len(v.Questions), refused)
	}
	if v, err := v.Say(ask(1000, "And I?"), voices.With{By: "kenji"}); err != nil ||
		len(v.Questions) != voices.MaxOfOne+1 {
		t.Errorf("Kenji: %v", err)
	}
}

// Questions stand as a teacher looks at them: those that wait, then the most agreed
// with, then the first; and a word concerns its speaker, who is meant, and whose
// question it is about.
func TestOrderAndConcern(t *testing.T) {
	v := voices.Voices{Settings: voices.Settings{ForAll: true}, Questions: []voices.Question{
		{ID: "a", By: "noor", Ticked: true, Agreed: []string{"x", "y", "z"}}, {ID: "b", By: "kenji"},
		{
			ID:     "c",
			By:     "noor",
			Agreed: []string{"x"},
		}, {ID: "d", By: "vera", Agreed: []string{"y"}}, {ID: "e", By: "vera"}}}
	var order []string
	for _, q := range v.Ordered().Questions {
		order = append(order, q.ID)
	}
	if got := strings.Join(order, ""); got != "cdbea" || v.Questions[0].ID != "a" {
		t.Errorf("order %s, and as they were asked %+v", got, v.Questions)
	}
	if class := v.ForClass().Questions; class[0].ID != "c" || class[4].ID != "a" {
		t.Errorf("for the class %+v", class)
	}
	tick := voices.Word{Kind: voices.KindTick, Tick: &voices.Tick{Question: "d"}}
	come := voices.Word{Kind: voices.KindCome, Come: &voices.Come{Student: "kenji"}}
	if !slices.Contains(v.Concerned(tick, ""), "vera") || slices.Contains(v.Concerned(tick, ""), "noor") ||
		!slices.Contains(
			v.Concerned(come, ""),
			"kenji",
		) || !slices.Contains(v.Concerned(agree(1, true), "omar"), "omar") {
		t.Errorf("concerned: %v, %v", v.Concerned(tick, ""), v.Concerned(come, ""))
	}
}

package sheet_test

import (
	"errors"
	"reflect"
	"strings"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
	"alpenglow/core/sheet"
)

// Each case does its steps on a fresh class sheet (or the sheet of the owner
// given), and the last step must be refused with the code, changing nothing.
func TestRefused(t *testing.T) {
	type step struct {
		by sheet.Actor
		op sheet.Op
	}
	n, long := v7(), strings.Repeat("x", lesson.MaxNote+1)
	mine := step{noor, addNote(n, "mine")}
	whole := rules(lesson.WholeClass, lesson.Add)
	own, grouped := rules(lesson.Individual, lesson.Add), rules(lesson.Groups, lesson.Add)
	with := func(r sheet.Terms, change func(*sheet.Terms)) sheet.Terms { change(&r); return r }
	width, none, below := 4.0, 0.0, -5.0
	second := v7()
	answered := with(whole, func(r *sheet.Terms) { r.Frame.Replies = true })
	link := func(url string) sheet.Op {
		return add(sheet.Add{Mark: v7(), W: 300, H: 60,
			Body: lesson.Body{Kind: lesson.KindLink, Link: &lesson.Link{URL: url}}})
	}
	cases := []struct {
		name  string
		rules sheet.Terms
		owner string
		steps []step
		want  refusal.Code
	}{
		{"another student's note moved", whole, "class", []step{mine, {kenji, moveTo(n, 5, 5)}}, refusal.NotYours},
		{"another student's note removed", whole, "class", []step{mine, {kenji, target(sheet.KindRemove, n)}},
			refusal.NotYours},
		{"another student's note hidden", whole, "class", []step{mine, {kenji, target(sheet.KindHide, n)}},
			refusal.NotYours},
		{"own note hidden", whole, "class", []step{mine, {noor, target(sheet.KindHide, n)}}, refusal.NotYours},
		{"another student's sheet", own, "noor", []step{mine, {kenji, addNote(v7(), "x")}}, refusal.NoSuchSheet},
		{"another group's sheet", grouped, "group-1", []step{{sheet.Actor{ID: "kenji", Group: 2}, addNote(v7(), "x")}},
			refusal.NoSuchSheet},
		{"a group's sheet by one without a group", grouped, "group-1", []step{mine}, refusal.NoSuchSheet},
		{"no group's sheet by one without a group", grouped, "", []step{mine}, refusal.NoSuchSheet},
		{"somebody with no id", own, "", []step{{sheet.Actor{}, addNote(v7(), "x")}}, refusal.NoSuchSheet},
		{"a frame not reached", with(whole, func(r *sheet.Terms) { r.Open = false }), "class", []step{mine},
			refusal.NoSuchSheet},
		{"after the end", with(whole, func(r *sheet.Terms) { r.Ended = true }), "class", []step{mine}, refusal.Ended},
		{"after the end, by staff", with(whole, func(r *sheet.Terms) { r.Ended = true }), "class",
			[]step{{staff, addNote(v7(), "x")}}, refusal.Ended},
		{"a frame to look at", rules(lesson.WholeClass, lesson.Look), "class", []step{mine}, refusal.LookOnly},
		{"a mark that is not there", whole, "class", []step{{noor, moveTo(v7(), 5, 5)}}, refusal.NoSuchMark},
		{"a removed mark moved", whole, "class",
			[]step{mine, {noor, target(sheet.KindRemove, n)}, {noor, moveTo(n, 5, 5)}}, refusal.NoSuchMark},
		{"restored though the teacher removed it", whole, "class",
			[]step{mine, {staff, target(sheet.KindRemove, n)}, {noor, target(sheet.KindRestore, n)}},
			refusal.NoSuchMark},
		{"own hidden note", whole, "class", []step{mine, {staff, target(sheet.KindHide, n)}, {noor, setText(n, "y")}},
			refusal.PutAway},
		{"another's hidden note", whole, "class",
			[]step{mine, {staff, target(sheet.KindHide, n)}, {kenji, setText(n, "y")}}, refusal.NoSuchMark},
		{"a mark id in use", whole, "class", []step{mine, {kenji, addNote(n, "z")}}, refusal.MarkExists},
		{"note over the limit", whole, "class", []step{{noor, addNote(v7(), long)}}, refusal.TextTooLong},
		{"note grown over the limit", whole, "class", []step{mine, {noor, setText(n, long)}}, refusal.TextTooLong},
		{"note of blanks", whole, "class", []step{{noor, addNote(v7(), " \n ")}}, refusal.EmptyNote},
		{"note with a bell", whole, "class", []step{{noor, addNote(v7(), "a\ab")}}, refusal.TextControl},
		{"note that turns the text around", whole, "class", []step{{noor, addNote(v7(), "a\u202Eb")}},
			refusal.TextControl},
		{"note moved out of the frame", whole, "class", []step{mine, {noor, moveTo(n, 1500, 5)}}, refusal.OutOfFrame},
		{"stroke without points", whole, "class", []step{{noor, addStroke(v7())}}, refusal.StrokeInvalid},
		{"stroke of half a point", whole, "class", []step{{noor, addStroke(v7(), 1, 2)}}, refusal.StrokeInvalid},
		{"stroke with too many points", whole, "class", []step{{noor, addStroke(v7(), make([]float64, 3*4001)...)}},
			refusal.StrokeInvalid},
		{"stroke out of the frame", whole, "class", []step{{noor, addStroke(v7(), 1600, 2, .5)}}, refusal.OutOfFrame},
		{"a width on a note", whole, "class", []step{mine, {noor, set(n, func(s *sheet.Set) { s.Width = &width })}},
			refusal.BadStyle},
		{"note resized to nothing", whole, "class", []step{mine, {noor, set(n, func(s *sheet.Set) { s.W = &none })}},
			refusal.BadSize},
		{"note resized below nothing", whole, "class",
			[]step{mine, {noor, set(n, func(s *sheet.Set) { s.H = &below })}}, refusal.BadSize},
		{"note turned too far", whole, "class",
			[]step{mine, {noor, set(n, func(s *sheet.Set) { far := 360.0; s.Turn = &far })}}, refusal.BadSize},
		{"note put above everything for good", whole, "class",
			[]step{mine, {noor, set(n, func(s *sheet.Set) { far := int64(1) << 40; s.Z = &far })}}, refusal.BadSize},
		{"an eraser that goes on for ever", whole, "class", []step{{noor, erase(true, make([]float64, 2*501)...)}},
			refusal.StrokeInvalid},
		{"a pile of combining marks", whole, "class", []step{{noor, addNote(v7(), "a"+strings.Repeat("\u0301", 100))}},
			refusal.TextControl},
		{"a connector from a mark to itself", whole, "class",
			[]step{mine, {noor, connector(v7(), lesson.Anchor{Mark: n}, lesson.Anchor{Mark: n})}}, refusal.Malformed},
		{"a connector out of the frame", whole, "class",
			[]step{{noor, connector(v7(), lesson.Anchor{X: -5}, lesson.Anchor{X: 50})}}, refusal.OutOfFrame},
		{"a connector resized", whole, "class",
			[]step{{noor, connector(n, lesson.Anchor{}, lesson.Anchor{X: 50})},
				{noor, set(n, func(s *sheet.Set) { s.W = &width })}}, refusal.BadSize},
		{"a link that runs a script", whole, "class", []step{{noor, link("javascript:alert(1)")}}, refusal.BadLink},
		{"a link with a name in it", whole, "class", []step{{noor, link("https://school.example@evil.example/")}},
			refusal.BadLink},
		{"a link to nowhere", whole, "class", []step{{noor, link("https://")}}, refusal.BadLink},
		{"a link that turns the text around", whole, "class", []step{{noor, link("https://a.example/\u202Efdp")}},
			refusal.BadLink},
		{"a poll brought in by a student", whole, "class",
			[]step{{noor, add(sheet.Add{Mark: v7(), W: 300, H: 300, Body: pollMark().Body})}}, refusal.Malformed},
		{"a reply where notes are not answered", whole, "class", []step{mine, {kenji, reply(v7(), n, "why?")}},
			refusal.NoReplies},
		{"a reply to nothing", answered, "class", []step{{kenji, reply(v7(), v7(), "why?")}}, refusal.NoSuchMark},
		{"a reply to a line", answered, "class", []step{{noor, addStroke(n, 0, 0, 1)}, {kenji, reply(v7(), n, "why?")}},
			refusal.NoSuchMark},
		{"a reply to a reply", answered, "class", []step{mine, {kenji, reply(second, n, "why?")},
			{noor, reply(v7(), second, "so")}}, refusal.NoSuchMark},
		{"a reply to what is hidden", answered, "class", []step{mine, {staff, target(sheet.KindHide, n)},
			{kenji, reply(v7(), n, "why?")}}, refusal.NoSuchMark},
		{"a reply to what was removed", answered, "class", []step{mine, {noor, target(sheet.KindRemove, n)},
			{kenji, reply(v7(), n, "why?")}}, refusal.NoSuchMark},
		{"a reply without words", answered, "class", []step{mine, {kenji, reply(v7(), n, "")}}, refusal.Malformed},
		{"a reply over the limit", answered, "class", []step{mine, {kenji, reply(v7(), n, strings.Repeat("x", 301))}},
			refusal.TextTooLong},
		{
			"a reply that lies somewhere",
			answered,
			"class",
			[]step{mine, {kenji, add(sheet.Add{Mark: v7(), X: 5, W: 50, H: 50,
				Body: lesson.Body{Kind: lesson.KindReply, Reply: &lesson.Reply{To: n, Text: "why?"}}})}},
			refusal.BadSize,
		},
		{
			"a reply moved",
			answered,
			"class",
			[]step{mine, {kenji, reply(second, n, "why?")}, {kenji, moveTo(second, 5, 5)}},
			refusal.BadSize,
		},
		{"another's reply changed", answered, "class", []step{mine, {kenji, reply(second, n, "why?")},
			{noor, setText(second, "no")}}, refusal.NotYours},
		{"own note agreed with", whole, "class", []step{mine, {noor, agree(n, true)}}, refusal.OwnNote},
		{"agreement with a line", whole, "class", []step{{noor, addStroke(n, 0, 0, 1)}, {kenji, agree(n, true)}},
			refusal.NoSuchMark},
		{"agreement with what is hidden", whole, "class",
			[]step{mine, {staff, target(sheet.KindHide, n)}, {kenji, agree(n, true)}}, refusal.NoSuchMark},
		{"cleared by a student", whole, "class", []step{mine, {noor, clear("noor")}}, refusal.NotYours},
		{"nothing to clear", whole, "class", []step{mine, {staff, clear("kenji")}}, refusal.NoSuchMark},
		{"another student's line erased", whole, "class",
			[]step{{noor, addStroke(n, 0, 0, 1, 50, 0, 1)}, {kenji, erase(true, 30, 0, 30, 50)}}, refusal.NoSuchMark},
		{"an eraser larger than the class", whole, "class",
			[]step{{noor, sheet.Op{ID: v7(), Step: sheet.Step{Kind: sheet.KindErase,
				Erase: &sheet.Erase{Path: []float64{1, 1}, Radius: 5000}}}}}, refusal.StrokeInvalid},
		{"an eraser on half a way", whole, "class", []step{{noor, erase(true, 30)}}, refusal.StrokeInvalid},
		{"many steps, the last not allowed", whole, "class",
			[]step{mine, {kenji, many(addNote(v7(), "a"), moveTo(n, 5, 5))}}, refusal.NotYours},
		{"many steps, the last impossible", whole, "class",
			[]step{mine, {noor, many(moveTo(n, 5, 5), addNote(n, "twice"))}}, refusal.MarkExists},
		{"taken back after the teacher changed it", whole, "class",
			[]step{mine, {staff, setText(n, "better")}, {noor, taken(target(sheet.KindRemove, n))}},
			refusal.ChangedSince},
		{"answer taken back after closing", with(own, func(r *sheet.Terms) {
			r.Polls = map[string]poll.State{"asked": {Phase: poll.Closed, Round: 1}}
		}), "noor", []step{{noor, answerIn(1, "")}}, refusal.PollClosed},
		{"sure of what was not asked", own, "noor", []step{{noor, sureOf("a", poll.Sure)}}, refusal.Malformed},
		{"sure in a word of one's own", own, "noor", []step{{noor, sureOf("a", "very")}}, refusal.Malformed},
		{"answer in a round to come", own, "noor", []step{{noor, answerIn(2, "a")}}, refusal.PollClosed},
		{"answer in no round", own, "noor", []step{{noor, answerIn(0, "a")}}, refusal.PollClosed},
		{"answer of no kind", own, "noor", []step{{noor, of(&poll.Value{})}}, refusal.Malformed},
		{"answer of two minds", own, "noor", []step{{noor, of(&poll.Value{Kind: poll.KindChoice})}}, refusal.Malformed},
		{"answer that is not offered", own, "noor", []step{{noor, answer("z")}}, refusal.NoSuchChoice},
		{"answer on the class sheet", whole, "class", []step{{noor, answer("a")}}, refusal.NoSuchSheet},
		{"answer by staff", own, "noor", []step{{staff, answer("a")}}, refusal.NotYours},
		{"answer moved", own, "noor", []step{{noor, answer("a")}, {noor, moveTo("asked", 1, 1)}}, refusal.NotYours},
	}
	for _, c := range cases {
		t.Run(c.name, func(t *testing.T) {
			s := sheet.New(c.owner)
			for i, st := range c.steps {
				before := s.Marks()
				_, err := apply(s, c.rules, st.by, st.op)
				if i < len(c.steps)-1 {
					if err != nil {
						t.Fatalf("step %d: %v", i, err)
					}
					continue
				}
				if !errors.Is(err, refusal.New(c.want)) {
					t.Fatalf("got %v, want %s", err, c.want)
				}
				if !reflect.DeepEqual(before, s.Marks()) {
					t.Error("the refused operation changed the sheet")
				}
			}
		})
	}
}

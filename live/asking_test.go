package live

import (
	"encoding/json"
	"slices"
	"strings"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/outcome"
	"alpenglow/core/poll"
	"alpenglow/core/prepare"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/store"
)

// What answers say is told to the staff alone, live and when asked; a student learns what is
// thought of their own answer once it is shown, and of nobody else's; neighbours who answered
// differently are told of each other.
func TestAsking(t *testing.T) {
	t.Parallel()
	b := newBattle(t)
	second := b.board.Frames[1]
	question := second.Prepared[0]
	staff := b.connect("staff", RoleStaff)
	kenji, vera := b.connect("Kenji", RoleStudent), b.connect("Vera", RoleStudent)
	staff.call(MethodHello, struct{}{})
	command := func(c session.Command) {
		t.Helper()
		if text := string(staff.call(MethodCommand, c)); strings.Contains(text, "problem") {
			t.Fatal(text)
		}
	}
	command(session.Command{Kind: session.KindGo, Go: &session.Go{Frame: second.ID}})
	sheets := map[*wire]string{}
	for _, student := range []*wire{kenji, vera} {
		student.call(MethodHello, struct{}{})
		sheets[student] = student.open(second.ID)[0].Sheet
	}
	answer := func(student *wire, option int) {
		t.Helper()
		value := poll.Choose(question.Poll.Choice.Options[option].ID)
		student.ops(step(sheets[student], sheet.Step{Kind: sheet.KindAnswer,
			Answer: &sheet.SetAnswer{Poll: question.ID, Round: 1, Value: &value}}))
	}
	staff.listenFor([]string{`"outcome":{"outcomes":[{"poll":"` + question.ID})
	answer(kenji, 0)
	answer(vera, 1)
	if !staff.said(`"outcome":{"outcomes":[{"poll":"` + question.ID) {
		t.Error("the staff is not told")
	}
	// What is known is read anew between an answer and the telling of it: it is told all the same.
	running, err := b.hub.session(ctx, b.id)
	if err != nil {
		t.Fatal(err)
	}
	for _, option := range []int{1, 0} {
		staff.listenFor([]string{`"outcome":{"outcomes":[{"poll":"` + question.ID})
		answer(kenji, option)
		if _, err := b.hub.know(ctx, running); err != nil {
			t.Fatal(err)
		}
		if !staff.said(`"outcome":{"outcomes":[{"poll":"` + question.ID) {
			t.Error("the staff is not told when what is known is read anew")
		}
	}
	var told Outcomes
	if err := json.Unmarshal(staff.call(MethodOutcome, AskOutcome{Frame: second.ID}), &told); err != nil ||
		len(told.Outcomes) != 1 || told.Outcomes[0].Answered != 2 || len(told.Outcomes[0].Answers) != 2 {
		t.Fatalf("%v: %+v", err, told)
	}
	no := func(student *wire, method string, ask any) {
		t.Helper()
		if text := string(student.call(method, ask)); !strings.Contains(text, "problem") {
			t.Errorf("%s %+v: %s", method, ask, text)
		}
	}
	mine := func(student *wire) AskVerdict { return AskVerdict{Sheet: sheets[student], Poll: question.ID, Round: 1} }
	no(kenji, MethodOutcome, AskOutcome{Frame: second.ID})
	no(kenji, MethodVerdict, mine(kenji)) // it is not shown yet
	no(staff, MethodVerdict, mine(kenji))
	no(staff, MethodOutcome, AskOutcome{Frame: "nowhere"})

	// They talk with each other.
	kenji.listenFor([]string{`"talk":{"poll":"` + question.ID + `","with":["` + b.ids[2] + `"]}`})
	command(session.Command{Kind: session.KindTalk, Talk: &session.SetTalk{Poll: question.ID}})
	if !kenji.said(`"talk":{"poll":"` + question.ID + `","with":["` + b.ids[2] + `"]}`) {
		t.Error("Kenji is not told with whom to talk")
	}
	command(session.Command{Kind: session.KindTalk, Talk: &session.SetTalk{}})

	bands := outcome.Bands{From: 10, To: 40}
	command(session.Command{Kind: session.KindBands, Bands: &session.SetBands{Bands: bands}})
	command(session.Command{Kind: session.KindPoll, Poll: &session.SetPoll{Poll: question.ID, Phase: poll.Revealed}})
	var own Verdict
	if err := json.Unmarshal(vera.call(MethodVerdict, mine(vera)), &own); err != nil ||
		own.Right != question.Poll.Right() ||
		own.Verdict != question.Poll.Judge(poll.Choose(question.Poll.Choice.Options[1].ID)).Verdict {
		t.Errorf("%v: %+v", err, own)
	}
	no(vera, MethodVerdict, mine(kenji))
	no(vera, MethodVerdict, AskVerdict{Sheet: sheets[vera], Poll: question.ID, Round: 2})
	no(vera, MethodVerdict, AskVerdict{Sheet: sheets[vera], Poll: "nothing", Round: 1})
	no(vera, MethodVerdict, AskVerdict{Sheet: "nothing", Poll: question.ID, Round: 1})
}

// A set at own pace that is judged once it is handed in: until then nobody learns anything, and
// then its student all of their own; a front screen learns how far the class has come and
// nothing of who.
func TestAskingASet(t *testing.T) {
	t.Parallel()
	b := newBattle(t)
	second := b.board.Frames[1]
	question := second.Prepared[0]
	staff := b.connect("staff", RoleStaff)
	kenji, vera := b.connect("Kenji", RoleStudent), b.connect("Vera", RoleStudent)
	screen := b.connect("screen", RoleFront)
	staff.call(MethodHello, struct{}{})
	set := lesson.Set{OwnPace: true, Feedback: lesson.FeedbackAtEnd, Race: true}
	if _, err := b.hub.Rework(ctx, b.id, "", func(d *store.Draft) error {
		return applyStep(ctx, d, prepare.Step{Kind: prepare.KindFrame,
			Frame: &prepare.SetFrame{Frame: second.ID, Set: &prepare.AsSet{As: &set}}})
	}); err != nil {
		t.Fatal(err)
	}
	for _, c := range []session.Command{{Kind: session.KindGo, Go: &session.Go{Frame: second.ID}},
		{Kind: session.KindFront, Front: &session.Front{Kind: session.FrontFrame}}} {
		if text := string(staff.call(MethodCommand, c)); strings.Contains(text, "problem") {
			t.Fatal(text)
		}
	}
	// What was not asked yet is nowhere, nor is what it shows, though its frame is open.
	later := *question.Poll
	later.InsteadOf, later.Picture = question.ID, store.NewID()
	if _, err := b.hub.Rework(ctx, b.id, "", func(d *store.Draft) error {
		return applyStep(ctx, d, prepare.Step{Kind: prepare.KindMarks, Marks: &prepare.MarksStep{Frame: second.ID,
			Step: sheet.Step{Kind: sheet.KindAdd, Add: &sheet.Add{Mark: store.NewID(), X: 10, Y: 10, W: 300, H: 300,
				Body: lesson.Body{Kind: lesson.KindPoll, Poll: &later}}}}})
	}); err != nil {
		t.Fatal(err)
	}
	if _, shown, err := b.hub.ShownPicture(ctx, b.id, later.Picture); err != nil || shown {
		t.Errorf("the picture of a question that was not asked is shown: %v", err)
	}
	screen.call(MethodHello, Hello{})
	sheets := map[*wire]string{}
	for _, student := range []*wire{kenji, vera} {
		if hello := string(student.call(MethodHello, struct{}{})); strings.Contains(hello, later.Picture) {
			t.Error("a student is told of a question that was not asked")
		}
		sheets[student] = student.open(second.ID)[0].Sheet
	}
	right := slices.IndexFunc(question.Poll.Choice.Options, func(o poll.Option) bool { return o.Right })
	value := poll.Choose(question.Poll.Choice.Options[right].ID)
	screen.listenFor([]string{`"given":1`})
	kenji.ops(step(sheets[kenji], sheet.Step{Kind: sheet.KindAnswer,
		Answer: &sheet.SetAnswer{Poll: question.ID, Round: 1, Value: &value}}))
	if !screen.said(`"given":1`) {
		t.Error("the front does not learn how far the class has come")
	}
	results := func(student *wire) (r Results) {
		t.Helper()
		if err := json.Unmarshal(student.call(MethodResults, AskResults{Sheet: sheets[kenji]}), &r); err != nil {
			t.Fatal(err)
		}
		return r
	}
	if r := results(kenji); len(r.Verdicts) != 0 || r.Of != 0 {
		t.Errorf("told before it was handed in: %+v", r)
	}
	staff.listenFor([]string{`"handed":1`})
	kenji.ops(step(sheets[kenji], sheet.Step{Kind: sheet.KindHandIn, HandIn: &sheet.HandIn{Round: 1}}))
	if !staff.said(`"handed":1`) {
		t.Error("the staff does not learn that it was handed in")
	}
	if r := results(kenji); r.Right != 1 || r.Of != 1 || r.Verdicts[question.ID].Right == "" {
		t.Errorf("after it was handed in: %+v", r)
	}
	for _, other := range []*wire{vera, staff} {
		if text := string(other.call(MethodResults, AskResults{Sheet: sheets[kenji]})); !strings.Contains(
			text,
			"problem",
		) {
			t.Errorf("told what is another's: %s", text)
		}
	}
	var told Outcomes
	if err := json.Unmarshal(staff.call(MethodOutcome, AskOutcome{Frame: second.ID}), &told); err != nil ||
		len(told.Sets) != 1 || told.Sets[0].Handed != 1 || len(told.Sets[0].Rows) != 2 {
		t.Errorf("%v: %+v", err, told.Sets)
	}
	var hello FrontHello
	if err := json.Unmarshal(screen.call(MethodHello, Hello{}), &hello); err != nil || hello.Front.Set == nil ||
		hello.Front.Set.Given != 1 || hello.Front.Set.Rows != nil {
		t.Errorf("%v: %+v", err, hello.Front.Set)
	}
}

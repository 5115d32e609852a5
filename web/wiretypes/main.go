// Command wiretypes writes the interface's TypeScript types from the Go
// structs that cross the wire, and the styles of its inks and tints. Run it at
// the top of the project: go run ./web/wiretypes
package main

import (
	"alpenglow/core/assess"
	"encoding/json"
	"fmt"
	"os"
	"reflect"
	"slices"
	"strings"
	"time"

	"alpenglow/core/account"
	"alpenglow/core/alike"
	"alpenglow/core/homework"
	"alpenglow/core/insight"
	"alpenglow/core/lesson"
	"alpenglow/core/measure"
	"alpenglow/core/number"
	"alpenglow/core/outcome"
	"alpenglow/core/output"
	"alpenglow/core/paper"
	"alpenglow/core/poll"
	"alpenglow/core/prepare"
	"alpenglow/core/progress"
	"alpenglow/core/questions"
	"alpenglow/core/record"
	"alpenglow/core/refusal"
	"alpenglow/core/report"
	"alpenglow/core/roster"
	"alpenglow/core/session"
	"alpenglow/core/settings"
	"alpenglow/core/sheet"
	"alpenglow/core/template"
	"alpenglow/core/voices"
	"alpenglow/live"
	"alpenglow/web"
)

// values lists what a named string may be.
var values = map[reflect.Type][]string{
	of[output.What]():        strs(output.Whats),
	of[homework.Stand]():     strs(homework.Stands),
	of[report.Why]():         strs(report.Whys),
	of[progress.Kind]():      strs(progress.Kinds),
	of[output.Form]():        strs(output.Forms),
	of[output.Paper]():       strs(output.Papers),
	of[paper.Kind]():         strs(paper.Kinds),
	of[paper.Ruling]():       strs(paper.Rulings),
	of[paper.Weight]():       strs(paper.Weights),
	of[paper.Anchor]():       strs(paper.Anchors),
	of[template.Group]():     strs(template.Groups),
	of[lesson.Layer]():       strs(lesson.Layers),
	of[lesson.Stand]():       strs(lesson.Stands),
	of[account.Role]():       append(strs(account.Roles), string(account.Guest)),
	of[settings.Language]():  strs(settings.Languages),
	of[settings.Region]():    strs(settings.Regions),
	of[settings.Sign]():      strs(settings.Signs),
	of[web.Did]():            strs(web.Dids),
	of[web.IntakeState]():    {string(web.IntakeReading), string(web.IntakeDone), string(web.IntakeFailed)},
	of[lesson.Arrangement](): {string(lesson.WholeClass), string(lesson.Groups), string(lesson.Individual)},
	of[session.FrontKind](): {
		string(session.FrontGathering),
		string(session.FrontFrame),
		string(session.FrontSheets),
		string(session.FrontPast),
		string(session.FrontPoll),
		string(session.FrontWords),
		string(session.FrontNothing),
	},
	of[session.Pace](): {string(session.Led), string(session.Own)},
	of[session.GroupBy](): {
		string(session.BySeats),
		string(session.BySet),
		string(session.ByLike),
		string(session.ByMixed),
	},
	of[lesson.Order](): {string(lesson.OrderCame), string(lesson.OrderAgreed), string(lesson.OrderName),
		string(lesson.OrderTint), string(lesson.OrderHand)},
	of[lesson.Permission](): {string(lesson.Look), string(lesson.Add), string(lesson.BuildTogether)},
	of[lesson.Form]():       strs(lesson.Forms),
	of[lesson.Fill]():       strs(lesson.Fills),
	of[lesson.Align]():      {string(lesson.AlignStart), string(lesson.AlignCentre), string(lesson.AlignEnd)},
	of[lesson.List]():       {string(lesson.ListNone), string(lesson.ListBullets), string(lesson.ListNumbers)},
	of[lesson.Nib](): {string(lesson.NibPen), string(lesson.NibMarker), string(lesson.NibHighlighter),
		string(lesson.NibBrush)},
	of[lesson.Heads]():        {string(lesson.HeadsNone), string(lesson.HeadsTo), string(lesson.HeadsBoth)},
	of[lesson.Sign]():         strs(lesson.Signs),
	of[lesson.Tint]():         strs(lesson.Tints),
	of[lesson.Ink]():          strs(lesson.Inks),
	of[questions.Loss]():      strs(questions.Losses),
	of[lesson.Feedback]():     strs(lesson.Feedbacks),
	of[session.SetStep]():     strs(session.SetSteps),
	of[poll.Phase]():          {string(poll.Open), string(poll.Closed), string(poll.Revealed)},
	of[poll.Verdict]():        strs(poll.Verdicts),
	of[poll.Kind]():           nil,
	of[poll.ChartKind]():      nil,
	of[poll.Holds]():          strs(poll.AllHolds),
	of[poll.Sureness]():       strs(poll.Surenesses),
	of[poll.Reason]():         strs(poll.Reasons),
	of[poll.UnitRule]():       strs(poll.UnitRules),
	of[number.Nearness]():     strs(number.Nearnesses),
	of[measure.Band]():        strs(measure.Bands),
	of[measure.Strength]():    strs(measure.Strengths),
	of[outcome.Advice]():      strs(outcome.Advices),
	of[live.Role]():           {string(live.RoleStaff), string(live.RoleStudent), string(live.RoleFront)},
	of[refusal.Code]():        strs(slices.Sorted(slices.Values(refusal.Codes()))),
	of[lesson.Kind]():         nil, // written out in the unions
	of[sheet.Kind]():          nil,
	of[session.CommandKind](): nil,
	of[live.NewsKind]():       nil,
	of[prepare.What]():        strs(prepare.Whats),
	of[voices.Kind]():         nil,
	of[voices.Wait]():         {string(voices.NotCalled), string(voices.Called), string(voices.Coming)},
	of[live.PassKind]():       nil,
	of[session.Entry]():       strs(session.Entries),
	of[roster.Doubt]():        strs(roster.Doubts),
	of[record.SpanKind]():     {string(record.SpanLed), string(record.SpanOwn), string(record.SpanPaused)},
	of[insight.State]():       strs(insight.States),
	of[insight.Why]():         strs(insight.Whys),
	of[insight.Evenness]():    strs(insight.Evennesses),
	of[prepare.Kind]():        nil,
	of[web.SourceKind]():      nil,
}

// names are what types are called there that share their Go name with another.
var names = map[reflect.Type]string{
	of[account.Role]():       "StaffRole",
	of[settings.Own]():       "OwnSettings",
	of[settings.House]():     "HouseSettings",
	of[settings.Sign]():      "LevelSign",
	of[roster.Row]():         "NameRow",
	of[roster.Columns]():     "NameColumns",
	of[roster.Plan]():        "ClassPlan",
	of[roster.Set]():         "ClassGroups",
	of[lesson.Set]():         "QuestionSet",
	of[outcome.Set]():        "SetOutcome",
	of[live.Verdict]():       "OwnVerdict",
	of[roster.Seats]():       "ClassSeats",
	of[paper.Kind]():         "PaperKind",
	of[paper.Anchor]():       "LabelAnchor",
	of[session.Group]():      "StudentGroup",
	of[session.Hold]():       "HoldWork",
	of[prepare.Edit]():       "BoardEdit",
	of[prepare.Step]():       "BoardStep",
	of[prepare.Frames]():     "FrameList",
	of[template.Group]():     "TemplateGroup",
	of[poll.Body]():          "Asked",
	of[poll.Value]():         "AnswerValue",
	of[poll.State]():         "PollState",
	of[poll.Tally]():         "AnswerTally",
	of[poll.Choice]():        "ChoiceAsked",
	of[poll.Chosen]():        "ChoiceGiven",
	of[poll.Several]():       "SeveralAsked",
	of[poll.Picked]():        "SeveralGiven",
	of[poll.Holds]():         "TruthSays",
	of[measure.Band]():       "GainBand",
	of[outcome.Moved]():      "RoundsCompared",
	of[poll.Blank]():         "TextBlank",
	of[live.Verdict]():       "OwnVerdict",
	of[record.Asked]():       "QuestionKept",
	of[measure.Set]():        "ItemSet",
	of[poll.Truth]():         "TruthAsked",
	of[poll.Held]():          "TruthGiven",
	of[poll.Number]():        "NumberAsked",
	of[poll.Short]():         "ShortAsked",
	of[poll.Free]():          "OpenAsked",
	of[poll.Written]():       "TextGiven",
	of[poll.Scale]():         "ScaleAsked",
	of[poll.Stepped]():       "ScaleGiven",
	of[poll.Rank]():          "RankAsked",
	of[poll.Order]():         "OrderAsked",
	of[poll.Ranked]():        "OrderGiven",
	of[poll.Match]():         "MatchAsked",
	of[poll.Matched]():       "MatchGiven",
	of[poll.Pair]():          "MatchPair",
	of[poll.Blanks]():        "BlanksAsked",
	of[poll.Filled]():        "BlanksGiven",
	of[poll.Boxes]():         "BoxesAsked",
	of[poll.Sorted]():        "BoxesGiven",
	of[poll.Places]():        "PlacesAsked",
	of[poll.Pointed]():       "PlacesGiven",
	of[poll.Point]():         "PlacePoint",
	of[poll.Area]():          "PlaceArea",
	of[poll.Draw]():          "DrawAsked",
	of[poll.Drawn]():         "DrawGiven",
	of[assess.Level]():       "JudgedLevel",
	of[assess.Piece]():       "JudgedPiece",
	of[assess.Said]():        "SayJudged",
	of[output.Paper]():       "PageSize",
	of[output.Form]():        "OutputForm",
	of[output.What]():        "TakeOutWhat",
	of[homework.Stand]():     "HomeworkStand",
	of[report.Frame]():       "ReportFrame",
	of[report.Why]():         "SoughtWhy",
	of[report.Question]():    "ReportQuestion",
	of[report.Student]():     "ReportStudent",
	of[report.Wish]():        "NextWish",
	of[progress.Kind]():      "EvidenceKind",
	of[progress.Objective](): "ObjectiveKnown",
	of[progress.Year]():      "StudentYear",
	of[progress.Day]():       "StudentLesson",
	of[progress.Change]():    "StudentChange",
	of[progress.Right]():     "RightOfAnswers",
	of[assess.Judged]():      "WorkJudged",
	of[assess.Told]():        "BackWord",
	of[assess.Word]():        "CommentSaid",
	of[poll.Memory]():        "MemoryAsked",
	of[poll.Turned]():        "MemoryGiven",
	of[poll.Finds]():         "FindsChart",
	of[poll.Bars]():          "BarsChart",
	of[poll.Numbers]():       "NumbersChart",
	of[poll.Ladder]():        "LadderChart",
	of[poll.Texts]():         "TextsChart",
	of[poll.Grid]():          "GridChart",
	of[poll.Points]():        "PointsChart",
	of[outcome.Answer]():     "AnswerOf",
	of[outcome.Given]():      "GivenAnswer",
	of[outcome.Sure]():       "SureCounts",
	of[outcome.Bands]():      "AdviceBands",
	of[outcome.End]():        "FlowEnd",
	of[outcome.Flow]():       "AnswerFlow",
	of[voices.Settings]():    "VoiceSettings",
	of[voices.Question]():    "ClassQuestion",
	of[voices.Kind]():        "WordKind",
	of[voices.Asked]():       "AskedQuestion",
	of[voices.Shared]():      "SharedVoices",
	of[voices.Own]():         "OwnVoices",
	of[voices.Ask]():         "AskQuestion",
	of[voices.Agree]():       "AgreeQuestion",
	of[voices.Hide]():        "HideQuestion",
	of[insight.State]():      "StudentState",
	of[insight.Row]():        "NextRow",
	of[alike.Group]():        "AlikeGroup",
	of[record.Line]():        "TimeLine",
	of[record.Event]():       "LineEvent",
	of[insight.Spread]():     "TakingPart",
}

func called(t reflect.Type) string {
	if name, ok := names[t]; ok {
		return name
	}
	return t.Name()
}

func of[T any]() reflect.Type { return reflect.TypeFor[T]() }

func strs[S ~string](list []S) []string {
	out := make([]string, len(list))
	for i, s := range list {
		out[i] = string(s)
	}
	return out
}

func main() {
	for name, text := range files() {
		if err := os.WriteFile(name, []byte(text), 0o644); err != nil {
			fmt.Fprintln(os.Stderr, err)
			os.Exit(1)
		}
	}
}

// files gives what is written, by name from the top of the project.
func files() map[string]string {
	return map[string]string{"ui/src/wire/types.gen.ts": Generate(), "ui/src/colours.gen.css": colours()}
}

// Generate gives the whole TypeScript file.
func Generate() string {
	g := &generator{written: map[reflect.Type]bool{}, taken: map[string]bool{}}
	for _, root := range roots {
		g.name(reflect.TypeOf(root))
	}
	return "// Written by web/wiretypes from the Go structs. Do not edit; run make types.\n\n" +
		strings.Join(g.out, "\n")
}

type generator struct {
	written map[reflect.Type]bool
	taken   map[string]bool
	out     []string
}

// name gives a type as it is written where it is used, and writes named types once.
func (g *generator) name(t reflect.Type) string {
	switch {
	case t == of[time.Time]():
		return "string"
	case t == of[json.RawMessage]():
		return "unknown"
	}
	switch t.Kind() {
	case reflect.Pointer:
		return g.name(t.Elem())
	case reflect.Slice:
		return "Array<" + g.name(t.Elem()) + ">"
	case reflect.Array:
		return "[" + strings.Repeat(g.name(t.Elem())+", ", t.Len()-1) + g.name(t.Elem()) + "]"
	case reflect.Map:
		return "{ [key: string]: " + g.name(t.Elem()) + " }"
	case reflect.Bool:
		return "boolean"
	case reflect.Int, reflect.Int64, reflect.Float64:
		return "number"
	case reflect.String:
		list, named := values[t]
		if !named {
			if t.Name() != "string" {
				panic("no values for " + t.String())
			}
			return "string"
		}
		if !g.written[t] {
			g.written[t] = true
			g.out = append(g.out, g.declare(t, union(list)))
		}
		return called(t)
	case reflect.Struct:
		g.object(t)
		return called(t)
	}
	panic("no TypeScript for " + t.String())
}

// declare writes a type out; two of one name would be one in TypeScript.
func (g *generator) declare(t reflect.Type, as string) string {
	name := called(t)
	if g.taken[name] {
		panic("two types are called " + name)
	}
	g.taken[name] = true
	return fmt.Sprintf("export type %s = %s;\n", name, as)
}

func union(list []string) string {
	quoted := make([]string, len(list))
	for i, s := range list {
		quoted[i] = fmt.Sprintf("%q", s)
	}
	return strings.Join(quoted, " | ")
}

// object writes a struct: its own fields, and beside them the types it embeds
// and the union that a field tagged oneof heads.
func (g *generator) object(t reflect.Type) {
	if g.written[t] {
		return
	}
	g.written[t] = true
	var own, beside []string
	var cases []string
	for i := range t.NumField() {
		f := t.Field(i)
		if !f.IsExported() {
			continue
		}
		if f.Anonymous && f.Tag.Get("json") == "" {
			if g.unites(f.Type) {
				beside = append(beside, g.name(f.Type))
				continue
			}
			g.object(f.Type)
			beside = append(beside, called(f.Type))
			continue
		}
		name, options, _ := strings.Cut(f.Tag.Get("json"), ",")
		switch {
		case name == "-" || slices.Contains(cases, f.Name):
			continue
		case f.Tag.Get("oneof") != "":
			cases = casesOf(t, i)
			beside = append(beside, g.cases(t, name, cases))
			continue
		}
		mark := ""
		if strings.Contains(options, "omitempty") {
			mark = "?"
		}
		own = append(own, fmt.Sprintf("  %s%s: %s;\n", name, mark, g.name(f.Type)))
	}
	parts := beside
	if len(own) > 0 || len(beside) == 0 {
		parts = append([]string{"{\n" + strings.Join(own, "") + "}"}, beside...)
	}
	g.out = append(g.out, g.declare(t, strings.Join(parts, " & ")))
}

// casesOf names the fields behind the one that tells the kind: a union's bodies.
func casesOf(t reflect.Type, kind int) []string {
	var fields []string
	for i := kind + 1; i < t.NumField(); i++ {
		if t.Field(i).Type.Kind() == reflect.Pointer {
			fields = append(fields, t.Field(i).Name)
		}
	}
	return fields
}

func (g *generator) unites(t reflect.Type) bool {
	for i := range t.NumField() {
		if t.Field(i).Tag.Get("oneof") != "" {
			return true
		}
	}
	return false
}

// cases writes a discriminated union: each case has its kind and its body.
func (g *generator) cases(t reflect.Type, kind string, fields []string) string {
	var cases []string
	for _, field := range fields {
		f, ok := t.FieldByName(field)
		if !ok {
			panic(t.Name() + " has no field " + field)
		}
		name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
		cases = append(cases, fmt.Sprintf("{ %s: %q; %s: %s }", kind, name, name, g.name(f.Type)))
	}
	return "(\n  | " + strings.Join(cases, "\n  | ") + "\n)"
}

package live

import (
	"fmt"
	"math/rand/v2"
	"strings"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/prepare"
	"alpenglow/core/sheet"
	"alpenglow/store"

	"github.com/google/uuid"
)

// attacker makes what a device that knows all of this may send.
type attacker struct {
	*rand.Rand
	pool []string
	hot  []string // what is on the frames that are open, and what they made last
}

// some gives an id that the device knows, in any spelling, or one that it made up.
func (a *attacker) some() string {
	id := a.pool[a.IntN(len(a.pool))]
	if a.IntN(3) > 0 {
		id = a.hot[a.IntN(len(a.hot))]
	}
	switch a.IntN(40) {
	case 0:
		return strings.ToUpper(id)
	case 1:
		return "{" + id + "}"
	case 2:
		return "urn:uuid:" + id
	case 3:
		return strings.ReplaceAll(id, "-", "")
	case 4:
		return " " + id
	case 5:
		return ""
	case 6:
		return []string{"class", "staff", "group-1", "\x00", "../x", strings.Repeat("x", 300)}[a.IntN(6)]
	case 7, 8, 9, 10, 11, 12:
		return store.NewID()
	case 13:
		return uuid.NewString()
	}
	return id
}

// fresh is mostly an id that nothing has.
func (a *attacker) fresh() string {
	if a.IntN(3) > 0 {
		return store.NewID()
	}
	return a.some()
}

func (a *attacker) number() float64 {
	if a.IntN(5) > 0 {
		return float64(a.IntN(800))
	}
	return []float64{0, 10, 300.5, 1599, 1600, -1, 1e20, 5e-324, float64(a.IntN(1600))}[a.IntN(9)]
}

// value is an answer of any kind, mostly of the one that is asked, with ids of anything.
func (a *attacker) value() poll.Value {
	text := &poll.Written{Text: []string{"29.53", "nan", "", "week", strings.Repeat("9", 500)}[a.IntN(5)]}
	switch a.IntN(13) {
	case 0:
		return poll.Value{Kind: poll.KindNumber, Number: text}
	case 1:
		return poll.Value{Kind: poll.KindShort, Short: text}
	case 2:
		return poll.Value{Kind: poll.KindSeveral, Several: &poll.Picked{Options: []string{a.some(), a.some()}}}
	case 3:
		return poll.Value{Kind: poll.KindOrder, Order: &poll.Ranked{Order: []string{a.some(), a.some(), a.some()}}}
	case 4:
		return poll.Value{
			Kind:  poll.KindMatch,
			Match: &poll.Matched{Pairs: []poll.Pair{{Left: a.some(), Right: a.some()}}},
		}
	case 5:
		return poll.Value{
			Kind:   poll.KindPlaces,
			Places: &poll.Pointed{At: []poll.Point{{X: a.number(), Y: a.number()}}},
		}
	case 6:
		return poll.Value{Kind: poll.KindChoice, Number: text}
	case 7:
		return poll.Value{Kind: poll.KindMemory, Memory: &poll.Turned{Found: []string{a.some()}, Turns: a.IntN(3)}}
	}
	return poll.Choose(a.some())
}

func (a *attacker) body() lesson.Body {
	points := make([]float64, 3*(1+a.IntN(60)))
	for i := range points {
		points[i] = float64(a.IntN(400))
		if i%3 == 2 {
			points[i] = 0.5
		}
	}
	switch a.IntN(11) {
	case 10:
		return lesson.Body{Kind: lesson.KindRemark, Remark: &lesson.Remark{Text: "a remark"}}
	case 9:
		return lesson.Body{Kind: lesson.KindReply, Reply: &lesson.Reply{To: a.some(), Text: "a reply"}}
	case 0:
		return lesson.Body{Kind: lesson.KindStroke, Stroke: &lesson.Stroke{Points: points, Ink: "night", Width: 4}}
	case 1:
		return lesson.Body{Kind: lesson.KindConnector,
			Connector: &lesson.Connector{From: lesson.Anchor{Mark: a.some(), X: a.number()},
				To: lesson.Anchor{X: a.number(), Y: a.number()}, Ink: "night", Width: 3}}
	case 2:
		return lesson.Body{Kind: lesson.KindPlaced, Placed: &lesson.Placed{Piece: a.some()}}
	case 3:
		return lesson.Body{
			Kind:   lesson.KindAnswer,
			Answer: &lesson.Answer{Poll: a.some(), Round: a.IntN(3), Value: poll.Choose(a.some())},
		}
	case 4:
		return lesson.Body{Kind: lesson.KindCover, Cover: &lesson.Cover{Tint: "moss"}}
	case 5:
		return lesson.Body{Kind: lesson.KindPicture, Picture: &lesson.Picture{Picture: a.some()}}
	case 6:
		return lesson.Body{Kind: []lesson.Kind{lesson.KindNote, lesson.KindStroke, lesson.KindPoll}[a.IntN(3)]}
	}
	return words(fmt.Sprint("note ", a.IntN(100)))
}

// change is what a teacher does to the board of the lesson meanwhile, to what is on
// a frame or to another frame, with ids that the attacker may have used; the cover
// and what is under it stay.
func (a *attacker) change(on lesson.Frame, other string) prepare.Step {
	id := a.hot[a.IntN(len(a.hot))]
	for _, m := range on.Prepared[3:] {
		if m.ID == id {
			id = on.Prepared[a.IntN(3)].ID
		}
	}
	marks := func(s sheet.Step) prepare.Step {
		return prepare.Step{Kind: prepare.KindMarks, Marks: &prepare.MarksStep{Frame: on.ID, Step: s}}
	}
	switch a.IntN(6) {
	case 0:
		return marks(sheet.Step{Kind: sheet.KindRemove, Remove: &sheet.Remove{Mark: id}})
	case 1:
		return marks(sheet.Step{Kind: sheet.KindRestore, Restore: &sheet.Restore{Mark: id}})
	case 2:
		layer := lesson.Layers[a.IntN(len(lesson.Layers))]
		return marks(
			sheet.Step{Kind: sheet.KindSet, Set: &sheet.Set{Mark: id, Properties: lesson.Properties{Layer: &layer}}},
		)
	case 3:
		return marks(sheet.Step{Kind: sheet.KindAdd, Add: &sheet.Add{Mark: id, X: 20, Y: 500, W: 200, H: 100,
			Body: words("a new task")}})
	case 4:
		return prepare.Step{Kind: prepare.KindDrop, Drop: &prepare.Frames{Frames: []string{other}}}
	}
	return prepare.Step{Kind: prepare.KindBring, Bring: &prepare.Frames{Frames: []string{other}}}
}

func (a *attacker) step(deep bool) sheet.Step {
	switch a.IntN(14) {
	case 13:
		back := &sheet.SetBack{To: int64(a.IntN(200)) - 1}
		if a.IntN(2) == 0 {
			back = &sheet.SetBack{Of: a.some()}
		}
		return sheet.Step{Kind: sheet.KindSetBack, SetBack: back}
	case 0, 1, 2:
		add := &sheet.Add{Mark: a.fresh(), X: a.number(), Y: a.number(), W: 200, H: 100, Free: a.IntN(2) == 0,
			Body: a.body()}
		if (add.Reply != nil || add.Remark != nil) && a.IntN(3) > 0 {
			add.X, add.Y, add.W, add.H = 0, 0, 0, 0
		}
		return sheet.Step{Kind: sheet.KindAdd, Add: add}
	case 3, 4:
		x, y, text := a.number(), a.number(), "changed"
		p := lesson.Properties{X: &x, Y: &y}
		switch column, margin := a.some(), a.IntN(2) == 0; a.IntN(4) {
		case 0:
			p = lesson.Properties{Text: &text}
		case 1:
			p = lesson.Properties{Margin: &margin, Column: &column, Rank: &x}
		}
		return sheet.Step{Kind: sheet.KindSet, Set: &sheet.Set{Mark: a.some(), Properties: p}}
	case 5:
		return sheet.Step{Kind: sheet.KindRemove, Remove: &sheet.Remove{Mark: a.some()}}
	case 6:
		if a.IntN(2) == 0 {
			return sheet.Step{Kind: sheet.KindRestore, Restore: &sheet.Restore{In: a.some()}}
		}
		return sheet.Step{Kind: sheet.KindRestore, Restore: &sheet.Restore{Mark: a.some()}}
	case 7:
		return sheet.Step{Kind: sheet.KindErase,
			Erase: &sheet.Erase{Path: []float64{a.number(), a.number(), a.number(), a.number()},
				Radius: 1 + 99*a.Float64(), Part: a.IntN(2) == 0}}
	case 8:
		return sheet.Step{Kind: sheet.KindAgree, Agree: &sheet.Agree{Mark: a.some(), Yes: a.IntN(3) > 0}}
	case 9:
		return []sheet.Step{{Kind: sheet.KindHide, Hide: &sheet.Hide{Mark: a.some()}},
			{Kind: sheet.KindShow, Show: &sheet.Show{Mark: a.some()}},
			{Kind: sheet.KindHold, Hold: &sheet.Hold{Mark: a.some()}},
			{Kind: sheet.KindSpread, Spread: &sheet.Spread{To: []sheet.Spot{{Mark: a.some(), X: a.number(), W: 90,
				H: 90}}}},
			{Kind: sheet.KindStack, Stack: &sheet.Stack{Stack: a.fresh(), Marks: []string{a.some(), a.some()}}},
			{Kind: sheet.KindStack, Stack: &sheet.Stack{To: []sheet.InStack{{Stack: a.some(),
				Spot: sheet.Spot{Mark: a.some(), X: a.number(), W: 90, H: 90}}}}},
			{Kind: sheet.KindClear, Clear: &sheet.Clear{Author: a.some()}}}[a.IntN(7)]
	case 10, 11:
		if a.IntN(6) == 0 {
			return sheet.Step{Kind: sheet.KindHandIn, HandIn: &sheet.HandIn{Round: a.IntN(4) - 1}}
		}
		set := &sheet.SetAnswer{Poll: a.some(), Round: a.IntN(4) - 1, Offline: a.IntN(3) == 0}
		if a.IntN(6) == 0 {
			set.Sure = []poll.Sureness{poll.Sure, poll.Unsure, "very"}[a.IntN(3)]
		}
		if value := a.value(); a.IntN(5) > 0 {
			set.Value = &value
		}
		return sheet.Step{Kind: sheet.KindAnswer, Answer: set}
	}
	many := &sheet.Many{}
	for range 1 + a.IntN(4) {
		if deep {
			many.Steps = append(many.Steps, a.step(false))
		}
	}
	return sheet.Step{Kind: sheet.KindMany, Many: many}
}

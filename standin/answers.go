package standin

import (
	"fmt"
	"math/rand/v2"
	"slices"

	"alpenglow/core/lesson"
	reads "alpenglow/core/number"
	"alpenglow/core/poll"
)

// own are things that students write in their own words.
var own = []string{
	"because the Moon pulls the water",
	"the Moon turns around us",
	"I think it is the shadow of the Earth",
	"the water moves with the Moon",
	"it pulls on both sides",
	"the Sun helps a little",
	"because the Earth turns under it",
	"no idea",
	"we saw it in the tide table",
	"it comes about an hour later each day",
}

// answer gives a student's answer to a question in a round: right as often as the student knows
// things, more often once it was talked about; else one of the known mistakes, or something
// odd. Sure they are more often when they are right.
func (s *student) answer(q lesson.Element, round int) (poll.Value, poll.Sureness) {
	r := s.random
	full, known := s.Asked[q.ID]
	if !known {
		full = *q.Poll
	}
	knows := min(.9, s.knows+.12*float64(round-1))
	value, right := poll.Value{}, false
	switch {
	case full.HasRight() && r.Float64() < knows:
		value, right = rightAnswer(full, r)
	case r.IntN(10) < 7:
		value = mistaken(full, r)
	}
	if full.Takes(value) != nil {
		value, right = anyAnswer(full, len(q.ID), r), false
	}
	sure := poll.NotAsked
	if full.Sure {
		sure = poll.Unsure
		if r.IntN(100) < map[bool]int{true: 75, false: 40}[right] {
			sure = poll.Sure
		}
	}
	return value, sure
}

func written(kind poll.Kind, text string) poll.Value {
	v := poll.Value{Kind: kind}
	switch kind {
	case poll.KindNumber:
		v.Number = &poll.Written{Text: text}
	case poll.KindShort:
		v.Short = &poll.Written{Text: text}
	default:
		v.Open = &poll.Written{Text: text}
	}
	return v
}

// middle gives the middle of an area's corners.
func middle(a poll.Area) poll.Point {
	var m poll.Point
	for _, c := range a.Corners {
		m.X += c.X / float64(len(a.Corners))
		m.Y += c.Y / float64(len(a.Corners))
	}
	return m
}

func rightAnswer(q poll.Question, r *rand.Rand) (poll.Value, bool) {
	ids := func(options []poll.Option, which func(poll.Option) bool) (all []string) {
		for _, o := range options {
			if which(o) {
				all = append(all, o.ID)
			}
		}
		return all
	}
	right := func(o poll.Option) bool { return o.Right }
	v := poll.Value{Kind: q.Kind}
	switch q.Kind {
	case poll.KindChoice:
		all := ids(q.Choice.Options, right)
		return poll.Choose(all[r.IntN(len(all))]), true
	case poll.KindSeveral:
		v.Several = &poll.Picked{Options: ids(q.Several.Options, right)}
	case poll.KindTruth:
		v.Truth = &poll.Held{Is: q.Truth.Is}
	case poll.KindNumber:
		text := q.Number.Answer
		if q.Number.UnitRule == poll.MustUnit || q.Number.UnitRule == poll.MayUnit && r.IntN(2) == 0 {
			text += " " + q.Number.Unit
		}
		return written(q.Kind, text), true
	case poll.KindShort:
		return written(q.Kind, q.Short.Accepted[r.IntN(len(q.Short.Accepted))]), true
	case poll.KindOrder:
		v.Order = &poll.Ranked{Order: ids(q.Order.Options, func(poll.Option) bool { return true })}
	case poll.KindMatch:
		v.Match = &poll.Matched{Pairs: q.Match.Pairs}
	case poll.KindBlanks:
		v.Blanks = &poll.Filled{}
		for _, p := range q.Blanks.Parts {
			if p.Blank != nil && len(p.Blank.Accepted) > 0 {
				v.Blanks.In = append(v.Blanks.In, poll.InBlank{Blank: p.Blank.ID, Text: p.Blank.Accepted[0]})
			}
		}
	case poll.KindBoxes:
		v.Boxes = &poll.Sorted{In: q.Boxes.Homes}
	case poll.KindPlaces:
		v.Places = &poll.Pointed{}
		for _, a := range q.Places.Areas {
			if a.Right && len(v.Places.At) < q.Places.Most {
				m := middle(a)
				v.Places.At = append(v.Places.At, poll.Point{X: near(m.X, .02, r), Y: near(m.Y, .02, r)})
			}
		}
	}
	return v, true
}

// near gives a share near another.
func near(x, off float64, r *rand.Rand) float64 { return min(1, max(0, x+off*r.NormFloat64())) }

// mistaken gives an answer that is one of the known mistakes; none where there are none.
func mistaken(q poll.Question, r *rand.Rand) poll.Value {
	v := poll.Value{Kind: q.Kind}
	switch q.Kind {
	case poll.KindChoice:
		for _, o := range q.Choice.Options {
			if o.Mistake != "" && (v.Choice == nil || r.IntN(2) == 0) {
				v.Choice = &poll.Chosen{Option: o.ID}
			}
		}
	case poll.KindTruth:
		if q.Truth.Is != "" {
			v.Truth = &poll.Held{
				Is: map[poll.Holds]poll.Holds{poll.IsTrue: poll.IsFalse, poll.IsFalse: poll.IsTrue}[q.Truth.Is],
			}
		}
	case poll.KindNumber:
		if n := len(q.Number.Mistakes); n > 0 {
			return written(q.Kind, q.Number.Mistakes[r.IntN(n)].From)
		}
	case poll.KindShort:
		if n := len(q.Short.Mistakes); n > 0 {
			return written(q.Kind, q.Short.Mistakes[r.IntN(n)].Texts[0])
		}
	case poll.KindOrder:
		if n := len(q.Order.Mistakes); n > 0 {
			v.Order = &poll.Ranked{Order: q.Order.Mistakes[r.IntN(n)].Order}
		}
	case poll.KindMatch:
		if n := len(q.Match.Mistakes); n > 0 {
			v.Match = &poll.Matched{Pairs: []poll.Pair{q.Match.Mistakes[r.IntN(n)].Pair}}
		}
	case poll.KindBoxes:
		if n := len(q.Boxes.Mistakes); n > 0 {
			v.Boxes = &poll.Sorted{In: []poll.InBox{q.Boxes.Mistakes[r.IntN(n)].InBox}}
		}
	case poll.KindPlaces:
		for _, a := range q.Places.Areas {
			if a.Mistake != "" {
				m := middle(a)
				v.Places = &poll.Pointed{At: []poll.Point{{X: near(m.X, .02, r), Y: near(m.Y, .02, r)}}}
			}
		}
	}
	return v
}

// anyAnswer gives something that the question takes. Of what is offered to choose from one thing
// misleads more than the others; which, chance says.
func anyAnswer(q poll.Question, chance int, r *rand.Rand) poll.Value {
	v := poll.Value{Kind: q.Kind}
	mixed := func(options []poll.Option) []string {
		all := make([]string, len(options))
		for i, o := range options {
			all[i] = o.ID
		}
		// Some things come before others in most people's minds.
		for range 1 + r.IntN(3) {
			i := r.IntN(len(all) - 1)
			all[i], all[i+1] = all[i+1], all[i]
		}
		return all
	}
	switch q.Kind {
	case poll.KindChoice:
		return poll.Choose(guess(q.Choice.Options, chance, r))
	case poll.KindSeveral:
		v.Several = &poll.Picked{Options: []string{guess(q.Several.Options, chance, r)}}
	case poll.KindTruth:
		v.Truth = &poll.Held{Is: []poll.Holds{poll.IsTrue, poll.IsFalse}[r.IntN(2)]}
		if q.Truth.NotSure && r.IntN(2) == 0 {
			v.Truth.Is = poll.NotSure
		}
	case poll.KindNumber:
		text := fmt.Sprint(1 + r.IntN(60))
		if key, err := reads.Read(q.Number.Answer, q.Number.Language); err == nil {
			x, _ := key.Value.Float64()
			text = fmt.Sprint(int(x * (.4 + 1.4*r.Float64())))
		}
		if q.Number.UnitRule == poll.MustUnit {
			text += " " + q.Number.Unit
		}
		return written(q.Kind, text)
	case poll.KindShort:
		return written(q.Kind, []string{"the Sun", "water", "I don't know", "the wind", "salt"}[r.IntN(5)])
	case poll.KindOpen:
		return written(q.Kind, own[r.IntN(len(own))])
	case poll.KindScale:
		middle := float64(q.Scale.Steps+1) / 2
		v.Scale = &poll.Stepped{Step: min(q.Scale.Steps, max(1, int(middle+.8+r.NormFloat64()*middle/2.5)))}
	case poll.KindRank:
		v.Rank = &poll.Ranked{Order: mixed(q.Rank.Options)}
	case poll.KindOrder:
		v.Order = &poll.Ranked{Order: mixed(q.Order.Options)}
	case poll.KindMatch:
		v.Match = &poll.Matched{}
		for _, o := range q.Match.Left {
			right := q.Match.Right[r.IntN(len(q.Match.Right))]
			v.Match.Pairs = append(v.Match.Pairs, poll.Pair{Left: o.ID, Right: right.ID})
		}
	case poll.KindBlanks:
		v.Blanks = &poll.Filled{}
		for _, p := range q.Blanks.Parts {
			if p.Blank == nil {
				continue
			}
			text := []string{"Sun", "Earth", "wind", "night"}[r.IntN(4)]
			if n := len(p.Blank.Offered); n > 0 {
				text = p.Blank.Offered[r.IntN(n)]
			}
			v.Blanks.In = append(v.Blanks.In, poll.InBlank{Blank: p.Blank.ID, Text: text})
		}
	case poll.KindBoxes:
		v.Boxes = &poll.Sorted{}
		for _, o := range q.Boxes.Things {
			box := q.Boxes.Boxes[r.IntN(len(q.Boxes.Boxes))]
			v.Boxes.In = append(v.Boxes.In, poll.InBox{Thing: o.ID, Box: box.ID})
		}
	case poll.KindPlaces:
		v.Places = &poll.Pointed{At: []poll.Point{{X: r.Float64(), Y: r.Float64()}}}
	case poll.KindDraw:
		v.Draw = &poll.Drawn{Done: true}
	case poll.KindMemory:
		// Most find all pairs, in about two turns each.
		found := max(1, min(len(q.Memory.Pairs), len(q.Memory.Pairs)+1-r.IntN(4)))
		v.Memory = &poll.Turned{Turns: found + r.IntN(2*found)}
		for _, p := range q.Memory.Pairs[:found] {
			v.Memory.Found = append(v.Memory.Found, p.One.ID)
		}
	}
	return v
}

// guess chooses one of several that is not right.
func guess(options []poll.Option, chance int, r *rand.Rand) string {
	wrong := slices.DeleteFunc(slices.Clone(options), func(o poll.Option) bool { return o.Right })
	if len(wrong) == 0 {
		wrong = options
	}
	weights, all := make([]float64, len(wrong)), 0.
	for i := range wrong {
		weights[i] = 1 / float64(1+(i+chance)%len(wrong))
		all += weights[i]
	}
	at := r.Float64() * all
	for i, w := range weights {
		if at -= w; at < 0 {
			return wrong[i].ID
		}
	}
	return wrong[0].ID
}

// Questions gives the questions of a board as they were prepared, by their ids.
func Questions(board lesson.Board) map[string]poll.Question {
	all := map[string]poll.Question{}
	for _, f := range board.Frames {
		for _, q := range f.Polls() {
			all[q.ID] = *q.Poll
		}
	}
	return all
}

package standin

import (
	"context"
	"math/rand/v2"
	"slices"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/live"
)

// temper is how a student goes about things.
type temper int

const (
	steady temper = iota
	quick
	slow
	idle     // is there and does nothing
	dropping // falls out of the network now and then, and returns
	fooling  // writes nonsense, stamps and scribbles
)

// student is one simulated student.
type student struct {
	Options
	name   string
	temper temper
	knows  float64 // how likely an answer is right
	random *rand.Rand

	marks    []string        // own, on the frame that is on
	frame    string          // that they are on
	answered map[string]int  // the last round of each poll that is answered, of each set that is handed in
	tries    map[string]int  // of each poll in that round
	right    map[string]bool // whether they were told that it is right
	notes    int
}

// newStudent makes the i-th student. Of every thirty about three are idle,
// three drop out, and one fools around.
func newStudent(o Options, i int, random *rand.Rand) *student {
	s := &student{Options: o, name: nameOf(i), random: random, answered: map[string]int{}, tries: map[string]int{},
		right: map[string]bool{}}
	s.knows = 0.35 + 0.55*random.Float64()
	switch {
	case i%30 == 4:
		s.temper = fooling
		s.name = "Captain " + s.name
	case i%10 == 7:
		s.temper = idle
	case i%10 == 9:
		s.temper = dropping
	default:
		s.temper = temper(random.IntN(3))
	}
	return s
}

// pause is how long a student thinks before doing the next thing.
func (s *student) pause() time.Duration {
	mean := map[temper]float64{steady: 9, quick: 5, slow: 18, idle: 20, dropping: 9, fooling: 4}[s.temper]
	// Times between what people do are skewed: mostly short, at times long.
	seconds := min(60, 1.5+mean*s.random.ExpFloat64()*0.8)
	return s.during(time.Duration(seconds * float64(time.Second)))
}

// run joins, works until the lesson ends, and falls out and returns where that
// is the student's way.
func (s *student) run(ctx context.Context, k *Class) error {
	seat, cookie, err := s.join(ctx)
	if err != nil {
		return err
	}
	for ctx.Err() == nil {
		until := time.Hour
		if s.temper == dropping {
			until = s.during(time.Duration(20+s.random.IntN(40)) * time.Second)
		}
		ended, err := s.work(ctx, k, seat, cookie, until)
		if err != nil || ended {
			return err
		}
		if !sleep(ctx, s.during(time.Duration(8+s.random.IntN(15))*time.Second)) {
			return nil
		}
	}
	return nil
}

// work is one stay in the lesson. It reports whether the lesson has ended.
func (s *student) work(ctx context.Context, k *Class, session, cookie string, until time.Duration) (ended bool,
	err error) {
	ctx, leave := context.WithTimeout(ctx, until)
	defer leave()
	l, err := dial(ctx, s.URL, s.origin(), session, cookie)
	if err != nil {
		return false, err
	}
	defer l.close()
	for {
		if !sleep(ctx, s.pause()) || !k.rest(ctx) {
			return false, nil
		}
		stage, sheets := l.now()
		if stage.Ended {
			return true, nil
		}
		if s.frame != stage.Frame.ID {
			s.frame, s.marks, s.notes = stage.Frame.ID, nil, 0
		}
		if s.temper == idle && s.random.IntN(6) > 0 {
			continue
		}
		if frame, yes := s.goOn(stage); yes {
			err = l.move(ctx, frame)
		} else if step, on, ok := s.next(stage, sheets, l.me); ok {
			err = l.do(ctx, sheet.Op{ID: newID(), Sheet: on, Step: step})
		}
		switch {
		case err != nil && ctx.Err() != nil:
			return false, nil
		case err != nil:
			return false, err
		}
	}
}

// goOn says whether the student, at their own pace, has done enough here and
// goes to the next frame. After the last one they stay.
func (s *student) goOn(stage session.Stage) (string, bool) {
	at := slices.IndexFunc(stage.Trail, func(f session.Station) bool { return f.Frame == stage.Frame.ID })
	if at < 0 || at+1 >= len(stage.Trail) {
		return "", false
	}
	for _, q := range stage.Frame.Polls() {
		if at := stage.Polls[q.ID]; at.Phase == poll.Open && s.answered[q.ID] < at.Round {
			return "", false
		}
	}
	look := stage.Frame.Permission == lesson.Look
	return stage.Trail[at+1].Frame, (look || len(s.marks) > 1) && s.random.IntN(3) == 0
}

// next decides what to do now, and on which sheet.
func (s *student) next(stage session.Stage, sheets []live.SheetView, me string) (sheet.Step, string, bool) {
	f := stage.Frame
	sharer := sheet.Actor{ID: me, Group: number(stage.Group)}.Owner(f.Arrangement)
	own, on := "", ""
	var there []lesson.Element
	for _, v := range sheets {
		if v.Frame != f.ID {
			continue
		}
		there = append(there, v.Put...)
		if v.Owner == me {
			own = v.Sheet
		}
		if v.Owner == sharer {
			on = v.Sheet
		}
	}
	if step, ok := s.asked(stage); ok && own != "" {
		return step, own, true
	}
	if on == "" || f.Permission == lesson.Look {
		return sheet.Step{}, "", false
	}
	return s.contribute(f, there, me), on, true
}

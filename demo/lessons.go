package demo

import (
	"context"
	"errors"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/roster"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/standin"
	"alpenglow/store"

	"github.com/google/uuid"
)

// held is a lesson: who of the staff held which board with which class, how many days
// ago and at what hour. One without days runs now.
type held struct {
	who          int
	board, class string
	days, hour   int
}

var schedule = []held{
	{0, "Life on the shore", "8 Juniper", 20, 9},
	{2, "The harbour in 1890", "7 Rowan", 19, 10},
	{1, "Fractions on a line", "10 Willow", 13, 8},
	{0, "Light and shadow", "9 Aspen", 12, 11},
	{2, "The night of the storm", "7 Rowan", 8, 9},
	{0, "Life on the shore", "9 Aspen", 6, 10},
	{2, "Begin and end the week", "7 Rowan", 5, 13},
	{1, "Straight lines", "9 Aspen", 3, 8},
	{0, "What do you know of the tides?", "8 Juniper", 2, 9},
	{1, "Straight lines", "10 Willow", 0, 0},
}

// ran is for how long the lesson that is running has run.
const ran = 14 * time.Minute

func (f *filler) lessons(ctx context.Context) error {
	for i, l := range schedule {
		begin := f.now.Add(-ran)
		if l.days > 0 {
			day := f.now.AddDate(0, 0, -l.days)
			begin = time.Date(day.Year(), day.Month(), day.Day(), l.hour, 5, 0, 0, day.Location())
		}
		if err := f.hold(ctx, l, begin, uint64(i)); err != nil {
			return fmt.Errorf("%s with %s: %w", l.board, l.class, err)
		}
	}
	return nil
}

// hold lets a lesson have been.
func (f *filler) hold(ctx context.Context, l held, begin time.Time, chance uint64) error {
	random := rand.New(rand.NewPCG(seed, 100+chance))
	class, err := f.Class(ctx, f.teachers[l.who], f.classes[l.class])
	if err != nil {
		return err
	}
	board := f.boards[l.board]
	r := run{filler: f, board: board, random: random, sheets: map[string]*sheet.Sheet{}}
	r.Session = store.Session{TeacherID: f.teachers[l.who], ClassID: &class.ID, ClassName: class.Name,
		Students: store.JSON[[]roster.Listed]{V: class.List()}, Plan: class.Plan}
	if r.State.V, err = session.Start(board, session.Led); err != nil {
		return err
	}
	for {
		r.Code = roster.Code(rand.IntN)
		if err = f.StartSession(ctx, &r.Session, f.shelfIDs[l.board], board); !errors.Is(err, store.ErrTaken) {
			break
		}
	}
	if err != nil {
		return err
	}
	if err := r.comeIn(ctx); err != nil {
		return err
	}
	deeds := standin.Past(board, len(r.in), standin.Questions(board), seed+chance, begin.Add(3*time.Minute))
	last := begin
	for n, frame := range board.Frames {
		if l.days == 0 && n > 1 { // they are at the second frame now
			break
		}
		if n > 0 {
			if err := r.command(ctx, last, session.Command{Kind: session.KindGo,
				Go: &session.Go{Frame: frame.ID}}); err != nil {
				return err
			}
		}
		if last, err = r.work(ctx, frame, deeds, last); err != nil {
			return err
		}
		before := last
		if last, err = r.again(ctx, frame, seed+chance, last); err != nil {
			return err
		}
		// What comes after it comes so much later.
		for i := range deeds {
			deeds[i].At = deeds[i].At.Add(last.Sub(before))
		}
	}
	if l.days > 0 {
		if err := r.command(ctx, last, session.Command{Kind: session.KindEnd, End: &session.End{}}); err != nil {
			return err
		}
	}
	return f.WasAt(ctx, r.ID, begin, last.Add(time.Minute))
}

// run is a lesson that is filled.
type run struct {
	*filler
	store.Session
	board  lesson.Board
	random *rand.Rand
	in     []string // participants
	sheets map[string]*sheet.Sheet
}

// comeIn lets most of the class come in, in some order.
func (r *run) comeIn(ctx context.Context) error {
	for _, i := range r.random.Perm(len(r.Students.V)) {
		if r.random.IntN(12) == 0 {
			continue // away today
		}
		student := r.Students.V[i]
		p, err := r.Join(ctx, r.ID, store.Joining{Limit: session.MaxParticipants, Token: []byte(store.NewID()),
			Student: student.ID,
			Decide:  store.Anybody(func(taken []string) string { return roster.Apart(student.Name, taken) })})
		if err != nil {
			return err
		}
		r.in = append(r.in, p.ID)
	}
	return nil
}

// command changes the state of the lesson.
func (r *run) command(ctx context.Context, at time.Time, c session.Command) error {
	next, err := r.State.V.Apply(r.board, c, session.With{By: r.TeacherID, Now: at.UnixMilli(), Students: r.in,
		Random: r.random.IntN})
	if err != nil {
		return err
	}
	r.State.V = next
	stored, err := r.SetState(ctx, r.ID, next)
	if err == nil && !stored {
		err = errors.New("the state was changed by somebody else")
	}
	return err
}

// again asks once more, after talking about it, those questions of a frame that ask who is sure.
func (r *run) again(ctx context.Context, frame lesson.Frame, chance uint64, last time.Time) (time.Time, error) {
	for _, q := range frame.Polls() {
		if !q.Poll.Sure {
			continue
		}
		closed, asked := last.Add(20*time.Second), last.Add(3*time.Minute)
		for _, c := range []struct {
			at time.Time
			session.Command
		}{{closed, session.Command{Kind: session.KindPoll, Poll: &session.SetPoll{Poll: q.ID, Phase: poll.Closed}}},
			{asked, session.Command{Kind: session.KindAsk, Ask: &session.Ask{Poll: q.ID}}}} {
			if err := r.command(ctx, c.at, c.Command); err != nil {
				return last, err
			}
		}
		deeds := standin.Again(frame, q, 2, len(r.in), standin.Questions(r.board), chance, asked)
		var err error
		if last, err = r.work(ctx, frame, deeds, asked); err != nil {
			return last, err
		}
	}
	return last, nil
}

// work lets the class do what it did on a frame, and gives the time of the last deed.
func (r *run) work(ctx context.Context, frame lesson.Frame, deeds []standin.Deed, last time.Time) (time.Time, error) {
	drafts, changes := map[string]*sheet.Draft{}, map[string][]sheet.Change{}
	for _, d := range deeds {
		if d.Frame != frame.ID {
			continue
		}
		who := sheet.Actor{ID: r.in[d.Student], Group: r.State.V.GroupOf(r.in[d.Student])}
		owner := who.Owner(frame.Arrangement)
		if d.Step.Answer != nil {
			owner = who.ID
		}
		key, err := r.EnsureSheet(ctx, r.ID, frame.ID, owner)
		if err != nil {
			return last, err
		}
		if r.sheets[key.ID] == nil {
			r.sheets[key.ID] = sheet.New(owner)
		}
		if drafts[key.ID] == nil {
			drafts[key.ID] = r.sheets[key.ID].Draft()
		}
		result, err := drafts[key.ID].Decide(sheet.Terms{Frame: frame, Open: true, Polls: r.State.V.Polls,
			Lifted: r.State.V.Lifted, Taken: r.board.IDs(), Sharing: len(r.in), Now: d.At.UnixMilli()}, who,
			sheet.Op{ID: uuid.Must(uuid.NewV7()).String(), Sheet: key.ID, Step: d.Step})
		if err != nil {
			continue // as in class: what is refused is refused
		}
		changes[key.ID], last = append(changes[key.ID], result.Change), d.At
	}
	var batches []store.Batch
	for id, draft := range drafts {
		if len(changes[id]) == 0 {
			continue
		}
		b := store.Batch{
			Sheet:    id,
			Session:  r.ID,
			Expected: r.sheets[id].Seq,
			Terms:    r.State.V.Terms,
			Changes:  changes[id],
		}
		b.Marks, b.Amounts = draft.Touched()
		batches = append(batches, b)
	}
	slices.SortFunc(batches, func(a, b store.Batch) int { return strings.Compare(a.Sheet, b.Sheet) })
	stored, err := r.Commit(ctx, batches)
	if err == nil && len(stored) != len(batches) {
		err = errors.New("not everything was stored")
	}
	for id, all := range changes { // it goes on from here
		for _, c := range all {
			r.sheets[id].Take(c)
		}
	}
	return last, err
}

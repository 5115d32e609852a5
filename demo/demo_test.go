package demo

import (
	"crypto/sha256"
	"fmt"
	"io"
	"log/slog"
	"math/rand/v2"
	"reflect"
	"slices"
	"testing"
	"time"

	core "alpenglow/core/lesson"
	"alpenglow/core/roster"
	"alpenglow/live"
	"alpenglow/store"
	"alpenglow/store/storetest"

	"github.com/prometheus/client_golang/prometheus"
)

func TestMain(m *testing.M) { storetest.Main(m) }

func TestNames(t *testing.T) {
	t.Parallel()
	for _, c := range classes(rand.New(rand.NewPCG(seed, 1))) {
		for _, name := range c.students {
			if read, err := roster.ReadName(name); err != nil || read != name {
				t.Errorf("%q of %s: %q, %v", name, c.name, read, err)
			}
		}
	}
	if len(juniper) != 26 {
		t.Errorf("%d students in 8 Juniper", len(juniper))
	}
}

// Two houses that are filled have the same in them, whoever looks; filling one again
// does nothing; and every lesson of the past has work and answers.
func TestFill(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("takes long")
	}
	now := time.Date(2026, 11, 26, 10, 30, 0, 0, time.UTC)
	var sums []string
	for range 2 {
		url := storetest.URL(t)
		s := storetest.Open(t, url)
		for range 2 {
			if err := Fill(t.Context(), s, now); err != nil {
				t.Fatal(err)
			}
		}
		sums = append(sums, contents(t, s, now))
		var beside int
		if err := storetest.DB(t, url).Get(&beside, `SELECT count(*) FROM happenings h JOIN sessions n ON n.id = h.session_id
			WHERE NOT to_timestamp(h.at / 1000.0) BETWEEN n.started_at - interval '1 s' AND coalesce(n.ended_at, $1)`,
			now); err != nil ||
			beside > 0 {
			t.Errorf("%d things happened before or after their lesson, %v", beside, err)
		}
	}
	if sums[0] != sums[1] {
		t.Errorf("two houses differ")
	}
}

// Every frame of the demo, played from its first change to its last, is the frame as it
// is; and as the past of a running server gives it.
func TestPlayed(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t, storetest.Filled(t, "demo", Filled))
	hub, err := live.New(s, slog.New(slog.DiscardHandler), prometheus.NewRegistry())
	if err != nil {
		t.Fatal(err)
	}
	defer hub.Close(t.Context())
	played := 0
	for _, p := range staff {
		teacher, err := s.TeacherByEmail(t.Context(), p.email)
		if err != nil {
			t.Fatal(err)
		}
		lessons, err := s.Sessions(t.Context(), teacher.ID)
		if err != nil {
			t.Fatal(err)
		}
		for _, lesson := range lessons {
			keys, err := s.SheetKeys(t.Context(), lesson.ID, "")
			if err != nil {
				t.Fatal(err)
			}
			for _, key := range keys {
				now, err := s.LoadSheet(t.Context(), key)
				if err != nil {
					t.Fatal(err)
				}
				moment, err := hub.Moment(t.Context(), lesson.ID, key.ID, 1_000_000)
				if err != nil {
					t.Fatal(err)
				}
				here := slices.DeleteFunc(now.Marks(), func(m core.Element) bool { return !m.OnFrame() })
				if moment.Seq != now.Seq || len(moment.Marks) != len(here) ||
					len(here) > 0 && !reflect.DeepEqual(moment.Marks, here) {
					t.Errorf("%s of %s, played, is another frame", key.Owner, lesson.Title)
				}
				played += len(here)
			}
		}
	}
	if played < 500 {
		t.Errorf("only %d marks were played", played)
	}
}

// contents says what is in a house, without ids.
func contents(t *testing.T, s *store.Store, now time.Time) string {
	ctx, sum := t.Context(), sha256.New()
	running, lessons, boards := 0, 0, 0
	for _, p := range staff {
		teacher, err := s.TeacherByEmail(ctx, p.email)
		if err != nil {
			t.Fatal(err)
		}
		shelf, err := s.Boards(ctx, teacher.ID)
		if err != nil {
			t.Fatal(err)
		}
		boards += len(shelf)
		for _, b := range shelf {
			fmt.Fprintln(sum, b.Outline.V.Title, b.Outline.V.Frames)
		}
		sessions, err := s.Sessions(ctx, teacher.ID)
		if err != nil {
			t.Fatal(err)
		}
		for _, n := range sessions {
			fmt.Fprintln(sum, n.Title, n.ClassName, n.Students, n.StartedAt.UTC(), n.EndedAt)
			if n.By != nil {
				continue
			}
			if lessons++; n.EndedAt == nil {
				running++
			} else if !n.StartedAt.Before(now.AddDate(0, 0, -2)) || n.EndedAt.Before(n.StartedAt) {
				t.Errorf("%s: from %v to %v", n.Title, n.StartedAt, n.EndedAt)
			}
			marks, answers := work(t, s, n.ID, sum)
			if marks+answers < n.Students/2 {
				t.Errorf("%s with %s: %d marks and %d answers of %d", n.Title, n.ClassName, marks, answers, n.Students)
			}
		}
	}
	if boards != 10 || lessons != len(schedule) || running != 1 {
		t.Errorf("%d boards, %d lessons, %d running", boards, lessons, running)
	}
	return fmt.Sprintf("%x", sum.Sum(nil))
}

func work(t *testing.T, s *store.Store, session string, sum io.Writer) (marks, answers int) {
	all, err := s.SessionMarks(t.Context(), session)
	if err != nil {
		t.Fatal(err)
	}
	words := map[string]int{}
	for _, m := range all {
		if m.Answer != nil {
			answers++
		} else {
			marks++
		}
		words[fmt.Sprint(m.Frame, m.Kind, m.Words(), m.At, m.X, m.Y)]++
	}
	fmt.Fprintln(sum, words)
	return marks, answers
}

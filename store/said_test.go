package store_test

import (
	"slices"
	"strings"
	"testing"
	"time"

	"alpenglow/core/find"
	"alpenglow/core/sheet"
	"alpenglow/store"
	"alpenglow/store/storetest"
)

// What students wrote is found by parts of its words, without case and accents, nearly the same where nothing has
// them, as it is now, and in one's own lessons alone.
func TestSearchSaid(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t, storetest.URL(t))
	n := started(t, s, "K7M2QX")
	key, err := s.EnsureSheet(ctx, n.ID, "one", "noor")
	if err != nil {
		t.Fatal(err)
	}
	seq := int64(0)
	write := func(mark, text string) {
		t.Helper()
		change := note(seq+1, mark, text)
		done, err := s.Commit(ctx, []store.Batch{{Sheet: key.ID, Session: n.ID, Expected: seq,
			Changes: []sheet.Change{change}, Marks: touched([]sheet.Change{change})}})
		if err != nil || !done[key.ID] {
			t.Fatal(done, err)
		}
		seq++
	}
	write("a", "À marée haute, l’eau déborde 100%")
	write("b", "المدّ العالي يتأخر")
	search := func(teacher, typed string) string {
		t.Helper()
		found, err := s.SearchSaid(ctx, teacher, find.Words(typed), 30)
		if err != nil {
			t.Fatal(err)
		}
		var all []string
		for _, f := range found {
			if f.Session != n.ID || f.Frame != "one" || f.Lesson == "" {
				t.Errorf("%+v", f)
			}
			all = append(all, f.Words)
		}
		return strings.Join(all, "|")
	}
	other := teacher(t, s, "other@ternharbour.example")
	for _, c := range []struct{ who, typed, want string }{
		{n.TeacherID, "MAREE", "a maree haute, l’eau deborde 100%"}, {n.TeacherID, "eau born", ""},
		{n.TeacherID, "eau bord", "a maree haute, l’eau deborde 100%"},
		{n.TeacherID, "%", "a maree haute, l’eau deborde 100%"},
		{n.TeacherID, "العالي", "المد العالي يتاخر"}, {n.TeacherID, "deborbe", "a maree haute, l’eau deborde 100%"},
		{n.TeacherID, "", ""}, {n.TeacherID, "_", ""}, {other, "maree", ""},
	} {
		if got := search(c.who, c.typed); got != c.want {
			t.Errorf("%q finds %q, want %q", c.typed, got, c.want)
		}
	}
	write("a", "neap tide")
	if got := search(n.TeacherID, "maree"); got != "" {
		t.Errorf("what was written over is found: %q", got)
	}
	if got := search(n.TeacherID, "neap"); got != "neap tide" {
		t.Errorf("what was written since: %q", got)
	}
}

// BenchmarkSearchSaid looks through 1,000 lessons of 150 notes each.
func BenchmarkSearchSaid(b *testing.B) {
	url := storetest.URL(b)
	s := storetest.Open(b, url)
	n := started(b, s, "K7M2QX")
	db := storetest.DB(b, url)
	for _, q := range []string{
		`INSERT INTO sessions (id, teacher_id, board_id, code, state, rev, ended_at, title)
		 SELECT gen_random_uuid(), teacher_id, board_id, 'OLD', state, 0, now(), title FROM sessions, generate_series(1, 1000)`,
		`INSERT INTO boards (id, teacher_id, session_id, outline) SELECT id, teacher_id, id, '{"title": "", "frames": []}'
		 FROM sessions WHERE code = 'OLD'`,
		`INSERT INTO sheets (id, session_id, frame_id, owner, seq) SELECT gen_random_uuid(), id, 'one', n::text, 5
		 FROM sessions, generate_series(1, 30) n WHERE code = 'OLD'`,
		`INSERT INTO marks (sheet_id, id, mark, seq) SELECT h.id, n::text, json_build_object('id', n::text, 'kind', 'note',
		 'author', h.owner, 'note', json_build_object('tint', 'moss', 'text', 'the spring tide of word' || (random() * 90)::int ||
		 ' came ' || md5(random()::text) || ' after noon')), n FROM sheets h, generate_series(1, 5) n WHERE h.seq = 5`, `ANALYZE`,
	} {
		if _, err := db.ExecContext(ctx, q); err != nil {
			b.Fatal(err)
		}
	}
	for range 16 { // 10,000 marks each time
		if err := s.ReadSaid(ctx); err != nil {
			b.Fatal(err)
		}
	}
	if _, err := db.ExecContext(ctx, `VACUUM ANALYZE marks`); err != nil { // as PostgreSQL does by itself soon
		b.Fatal(err)
	}
	for _, typed := range []string{"tide", "word7 came", "spring tide", "ti", "zz", "eclipse", "sprong tide"} {
		b.Run(typed, func(b *testing.B) {
			var took []time.Duration
			for b.Loop() {
				begin := time.Now()
				if _, err := s.SearchSaid(ctx, n.TeacherID, find.Words(typed), 30); err != nil {
					b.Fatal(err)
				}
				took = append(took, time.Since(begin))
			}
			slices.Sort(took)
			b.ReportMetric(float64(took[len(took)*95/100].Microseconds())/1000, "p95-ms")
		})
	}
}

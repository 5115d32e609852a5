package formats_test

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"math/rand/v2"
	"reflect"
	"strings"
	"testing"

	"alpenglow/core/assess"
	"alpenglow/core/formats"
	"alpenglow/core/lesson"
	"alpenglow/core/picture"
	"alpenglow/core/poll"
	"alpenglow/core/record"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/settings"
	"alpenglow/core/sheet"
)

const (
	noor  = "01936f2e-0000-7000-8000-000000000001"
	kenji = "01936f2e-0000-7000-8000-000000000002"
	photo = "01936f2e-0000-7000-8000-00000000000a"
)

// held is a lesson with the board of these tests: two students, a note, a photo, a moved piece, an answer, a level.
func held() formats.Held {
	b := board()
	b.Frames[0].Prepared = append(b.Frames[0].Prepared,
		lesson.Element{ID: "q", X: 200, Y: 200, W: 400, H: 200, Body: lesson.Body{Kind: lesson.KindPoll,
			Poll: &poll.Question{
				Text: "How long?",
				Body: poll.Offer(poll.Option{ID: "a", Text: "29.53 days", Right: true},
					poll.Option{ID: "b", Text: "7 days"}),
			}}})
	b.Frames[0].Criteria = []lesson.Criterion{{ID: "why", Name: "Says why"}}
	mark := func(id, author string, body lesson.Body) lesson.Element {
		return lesson.Element{ID: id, Author: author, X: 10, Y: 10, W: 100, H: 100, At: 2000, Body: body}
	}
	note := mark(
		"n1",
		noor,
		lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: "lit on one side", Tint: "moss"}},
	)
	note.Agreed = []string{kenji}
	hidden := mark("n2", kenji, lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: "hm", Tint: "moss"}})
	hidden.Standing = &lesson.Standing{Is: lesson.Hidden, By: lesson.Staff, At: 2100}
	answer := lesson.Element{ID: "q", Author: noor, At: 2500, Body: lesson.Body{Kind: lesson.KindAnswer,
		Answer: &lesson.Answer{Poll: "q", Round: 1, Value: poll.Choose("a")}}}
	by := b.Frames[0].Criteria[0]
	return formats.Held{Class: "8 Juniper", Language: settings.English, Began: 1000, Ended: 9000, Board: b,
		Polls: map[string]poll.State{"q": {Phase: poll.Revealed, Round: 1}}, Groups: [][]string{{noor, kenji}},
		Students: []record.Student{{ID: noor, Name: "Noor"}, {ID: kenji, Name: "Kenji"}},
		Sheets: []formats.HeldSheet{
			{Frame: "f", Owner: sheet.ClassOwner, Marks: []lesson.Element{note, hidden}},
			{Frame: "f", Owner: sheet.GroupOwner(1), Marks: []lesson.Element{mark("p1", kenji, lesson.Body{
				Kind: lesson.KindPicture, Picture: &lesson.Picture{Picture: photo, Alt: "our moon"}})}},
			{Frame: "f", Owner: noor, Marks: []lesson.Element{answer,
				mark("n", noor, lesson.Body{Kind: lesson.KindPlaced, Placed: &lesson.Placed{Piece: "n"}})}},
		},
		Judged: []assess.Judged{
			{Piece: assess.Piece{Student: noor, Frame: "f"}, Word: assess.Word{Comment: "Well seen."}, At: 9500},
			{Piece: assess.Piece{Student: noor, Frame: "f", Criterion: "why"}, At: 9500,
				Level: &assess.Level{At: 1, Scale: settings.Usually().Scale, By: &by}},
		}}
}

func heldFile(t testing.TB) formats.File {
	return formats.File{Board: board(), Held: []formats.Held{held()},
		Pictures: map[string]picture.Picture{"p1": pixels(t), photo: pixels(t)}}
}

// A board that is written with its lessons and read again is exactly the same; a photo that is gone is left out.
func TestHeldIsExact(t *testing.T) {
	want := heldFile(t)
	var file bytes.Buffer
	if err := formats.WriteBoard(&file, want); err != nil {
		t.Fatal(err)
	}
	got, err := formats.ReadBoard(file.Bytes(), picture.Read)
	if err != nil || len(got.Pictures) != 2 || !reflect.DeepEqual(got.Held, want.Held) {
		t.Fatalf("%+v, %v", got.Held, err)
	}
	again, err := got.Held[0].Anew(map[string]string{noor: photo})
	text, _ := json.Marshal(again)
	if err != nil || strings.Contains(string(text), noor) || again.Students[0].Name != "Noor" ||
		again.Sheets[2].Owner != photo || again.Judged[0].Student != photo || again.Sheets[0].Marks[0].Author != photo {
		t.Errorf("with other ids: %s, %v", text, err)
	}
	file.Reset()
	delete(want.Pictures, photo)
	if err := formats.WriteBoard(&file, want); err != nil {
		t.Fatal(err)
	}
	if got, err = formats.ReadBoard(file.Bytes(), picture.Read); err != nil || len(got.Pictures) != 1 {
		t.Errorf("without a photo: %v", err)
	}
	for len(want.Held) <= formats.MaxHeld {
		want.Held = append(want.Held, want.Held[0])
	}
	if err := formats.WriteBoard(&file, want); !errors.Is(err, refusal.New(refusal.FileHuge)) {
		t.Errorf("more lessons than can be read: %v", err)
	}
}

// Whatever no lesson can have come to is refused.
func TestBadHeld(t *testing.T) {
	good := held()
	if err := good.Check(); err != nil {
		t.Fatal(err)
	}
	marks := func(h *formats.Held) []lesson.Element { return h.Sheets[0].Marks }
	for name, spoil := range map[string]func(h *formats.Held){
		"before it began":            func(h *formats.Held) { h.Ended = 1 },
		"in no language":             func(h *formats.Held) { h.Language = "xx" },
		"two of one id":              func(h *formats.Held) { h.Students[1].ID = noor },
		"a student who is the staff": func(h *formats.Held) { h.Students[1].ID = lesson.Staff },
		"an id in capitals":          func(h *formats.Held) { h.Students[0].ID = strings.ToUpper(noor) },
		"a name that turns":          func(h *formats.Held) { h.Students[0].Name = "a\u202eb" },
		"a class of two lines":       func(h *formats.Held) { h.Class = "8\n9" },
		"a stranger's sheet":         func(h *formats.Held) { h.Sheets[2].Owner = photo },
		"the staff's sheet":          func(h *formats.Held) { h.Sheets[2].Owner = lesson.Staff },
		"a group without end":        func(h *formats.Held) { h.Sheets[1].Owner = sheet.GroupOwner(100000) },
		"a sheet twice":              func(h *formats.Held) { h.Sheets[1].Owner = sheet.ClassOwner },
		"a sheet of no frame":        func(h *formats.Held) { h.Sheets[0].Frame = "g" },
		"a mark twice":               func(h *formats.Held) { marks(h)[1].ID = "n1" },
		"a mark of a stranger":       func(h *formats.Held) { marks(h)[0].Author = photo },
		"changed by a stranger":      func(h *formats.Held) { marks(h)[0].By = photo },
		"agreed by a stranger":       func(h *formats.Held) { marks(h)[0].Agreed[0] = photo },
		"hidden by a stranger":       func(h *formats.Held) { marks(h)[1].Standing.By = photo },
		"removed":                    func(h *formats.Held) { marks(h)[1].Standing.Is = lesson.Removed },
		"long after the end":         func(h *formats.Held) { marks(h)[0].At = 1 << 60 },
		"out of the frame":           func(h *formats.Held) { marks(h)[0].X = 1e9 },
		"an id of a NUL":             func(h *formats.Held) { marks(h)[0].ID = "a\x00" },
		"a cover":                    func(h *formats.Held) { marks(h)[0].Body = lesson.Body{Kind: lesson.KindCover, Cover: &lesson.Cover{}} },
		"no such piece":              func(h *formats.Held) { h.Sheets[2].Marks[1].Placed.Piece = "m" },
		"a picture by a path":        func(h *formats.Held) { h.Sheets[1].Marks[0].Picture.Picture = "../x" },
		"an answer nobody could give": func(h *formats.Held) {
			h.Sheets[2].Marks[0].Answer.Value = poll.Choose("z")
		},
		"an answer of another kind": func(h *formats.Held) {
			h.Sheets[2].Marks[0].Answer.Value = poll.Value{Kind: poll.KindNumber}
		},
		"a try nobody could make": func(h *formats.Held) {
			h.Sheets[2].Marks[0].Answer.Before = []poll.Value{{}}
		},
		"an answer of round 0": func(h *formats.Held) { h.Sheets[2].Marks[0].Answer.Round = 0 },
		"an answer to nothing": func(h *formats.Held) {
			h.Sheets[2].Marks[0].ID, h.Sheets[2].Marks[0].Answer.Poll = "n", "n"
		},
		"a question that is open":       func(h *formats.Held) { h.Polls["q"] = poll.State{Phase: poll.Open, Round: 1} },
		"a round without end":           func(h *formats.Held) { h.Polls["q"] = poll.State{Phase: poll.Closed, Round: 1e6} },
		"a stranger in a group":         func(h *formats.Held) { h.Groups[0][0] = photo },
		"judged by somebody":            func(h *formats.Held) { h.Judged[0].By = noor },
		"judged twice":                  func(h *formats.Held) { h.Judged[1] = h.Judged[0] },
		"work that is not there":        func(h *formats.Held) { h.Judged[0].Student = photo },
		"a level above the scale":       func(h *formats.Held) { h.Judged[1].Level.At = 9 },
		"a scale without levels":        func(h *formats.Held) { h.Judged[1].Level.Scale = nil },
		"a level by another criterion":  func(h *formats.Held) { h.Judged[1].Criterion = "other" },
		"a level by no criterion named": func(h *formats.Held) { h.Judged[1].Level.By = nil },
	} {
		h := held()
		spoil(&h)
		if err := h.Check(); refusal.Of(err) == nil {
			t.Errorf("%s: %v", name, err)
		}
	}
}

// Lessons that are each of a size that is read are too much together.
func TestTooManyLessons(t *testing.T) {
	if testing.Short() {
		t.Skip("takes seconds")
	}
	text, err := json.Marshal(held())
	if err != nil {
		t.Fatal(err)
	}
	wide := append(text, bytes.Repeat([]byte(" "), 19<<20)...)
	for lessons, want := range map[int]refusal.Code{1: "", 4: refusal.FileHuge, formats.MaxHeld + 1: refusal.FileHuge,
		-1: refusal.FileHuge} {
		entries := []entry{{"board.json", heads(t, lessons)}, {"pictures/p1.png", pixels(t).Data}}
		for i := range min(lessons, 4) {
			entries = append(entries, entry{fmt.Sprintf("lessons/%d.json", i+1), wide})
		}
		_, err := formats.ReadBoard(archive(t, entries...), picture.Read)
		if want == "" && err != nil || want != "" && !errors.Is(err, refusal.New(want)) {
			t.Errorf("%d lessons: %v, want %q", lessons, err, want)
		}
	}
}

// Whatever somebody changes in a file, it is refused or gives a lesson that can be read, judged and given back.
func TestHeldByChance(t *testing.T) {
	if testing.Short() {
		t.Skip("takes seconds")
	}
	random := rand.New(rand.NewPCG(7, 8))
	text, _ := json.Marshal(held())
	words := []any{
		"",
		noor,
		kenji,
		photo,
		"staff",
		"class",
		"group:1",
		"group:0",
		"q",
		"n",
		"f",
		"a",
		"\u0000",
		"~",
		nil,
		-1.0,
		0.0,
		1e300,
		true,
		[]any{},
		map[string]any{},
		"choice",
		"answer",
		"placed",
		strings.Repeat("x", 700),
	}
	head, pixels := heads(t, 1), pixels(t).Data
	taken := 0
	for range 2000 {
		var tree any
		if err := json.Unmarshal(text, &tree); err != nil {
			t.Fatal(err)
		}
		for range 1 + random.IntN(2) {
			change(tree, random, words)
		}
		changed, _ := json.Marshal(tree)
		file := archive(t, entry{"board.json", head}, entry{"lessons/1.json", changed}, entry{"pictures/p1.png", pixels})
		got, err := formats.ReadBoard(file, picture.Read)
		if err != nil {
			if refusal.Of(err) == nil {
				t.Fatal(err)
			}
			continue
		}
		taken++
		h := got.Held[0]
		kept := h.Record()
		state := session.State{Polls: h.Polls, Lifted: h.Lifted, Groups: h.Groups}
		for _, s := range kept.Students {
			assess.BackTo(kept, state, h.Judged, s.ID, "")
		}
		kept.Questions()
		assess.Levels(kept, h.Judged, "")
	}
	if taken < 40 {
		t.Errorf("only %d of the files were read", taken)
	}
}

func heads(t testing.TB, lessons int) []byte {
	inner, err := json.Marshal(board())
	if err != nil {
		t.Fatal(err)
	}
	return fmt.Appendf(nil, `{"format":"alpenglow-board","version":%d,"lessons":%d,"board":%s}`, formats.BoardVersion,
		lessons, inner)
}

// change puts another value somewhere in a tree of JSON.
func change(tree any, random *rand.Rand, words []any) {
	word := words[random.IntN(len(words))]
	switch v := tree.(type) {
	case map[string]any:
		for key, inner := range v {
			if isLeaf(inner) || random.IntN(12) == 0 {
				if random.IntN(3) == 0 {
					v[key] = word
					return
				}
				continue
			}
			if random.IntN(2) == 0 {
				change(inner, random, words)
				return
			}
		}
	case []any:
		if len(v) > 0 {
			i := random.IntN(len(v))
			if isLeaf(v[i]) {
				v[i] = word
				return
			}
			change(v[i], random, words)
		}
	}
}

func isLeaf(v any) bool {
	switch v.(type) {
	case map[string]any, []any:
		return false
	}
	return true
}
